import Feedback from 'react-bootstrap/Feedback';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';

/** Why a version is made: the next reader needs it. */
export function Reason({
  value,
  problem,
  change,
}: {
  value: string;
  problem: string | undefined;
  change: (reason: string) => void;
}) {
  return (
    <>
      <FormLabel htmlFor="reason">Reason</FormLabel>
      <FormControl
        as="textarea"
        id="reason"
        isInvalid={problem !== undefined}
        rows={2}
        value={value}
        aria-describedby="reason-problem"
        onChange={(e) => change(e.target.value)}
      />
      <Feedback type="invalid" id="reason-problem" role="alert">
        {problem}
      </Feedback>
    </>
  );
}

/** What is inconsistent does not stop a version. */
export function FindingsStay({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <p className="soft small mb-0 mt-2">
      It can be saved with findings: they stay on the sheet and in every brief until they are corrected.
    </p>
  );
}
