import { axeWalk } from './axe';
import { test } from './help';

test.use({ spec: 'axe-dusk' });

test('axe finds nothing in dusk', async ({ browser, baseURL }) => {
  await axeWalk('dusk', browser, baseURL);
});
