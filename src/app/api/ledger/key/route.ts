import { door, fileAnswer } from '@/server/door/route';
import { publicKeys } from '@/server/ledger/keys';

/** The public keys of the ledger, for everybody: what they prove rests on where you keep them. */
export const GET = door({ who: 'anyone' }, () =>
  Promise.resolve(
    fileAnswer(Object.values(publicKeys()).join('\n'), {
      type: 'application/x-pem-file',
      name: 'jeito-ledger.pub.pem',
    }),
  ),
);
