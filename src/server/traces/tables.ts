/** They belong to a flight as what was tapped does: an exceedance seen by eye comes in with the taps. */
export { ExceedanceReleases, Exceedances, Traces } from '../fly/tables';
