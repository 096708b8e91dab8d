import { axeWalk } from './axe';
import { test } from './help';

test.use({ spec: 'axe-sun' });

test('axe finds nothing in sun', async ({ browser, baseURL }) => {
  await axeWalk('sun', browser, baseURL);
});
