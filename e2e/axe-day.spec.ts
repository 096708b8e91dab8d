import { axeWalk } from './axe';
import { test } from './help';

test.use({ spec: 'axe-day' });

test('axe finds nothing in day', async ({ browser, baseURL }) => {
  await axeWalk('day', browser, baseURL);
});
