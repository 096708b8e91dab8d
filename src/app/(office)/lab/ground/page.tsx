import { LAB_TITLES } from '@/domain/lab-pages';
import type { Metadata } from 'next';
import { contentById, newestContent } from '@/server/rules/content';
import { Ground } from '@/ui/lab/ground';
import { readState } from '@/ui/lab/query-state-read';
import { GROUND_START } from '@/ui/lab/starts';
import { LabFrame, type LabSearch, labPage } from '../../../lab-frame';
import { LabStage } from '../../../lab-stage';

export const metadata: Metadata = { title: LAB_TITLES.ground };

export default async function GroundPage({ searchParams }: { searchParams: LabSearch }) {
  return (await searchParams).part === 'corner' ? (
    <Corner searchParams={searchParams} />
  ) : (
    <LabStage page="ground" search={searchParams} />
  );
}

async function Corner({ searchParams }: { searchParams: LabSearch }) {
  const { user, facts, query, context } = await labPage(searchParams, 'taxi');
  const { head, type } = facts;
  const house = head ? await contentById('house', head.houseId) : (await newestContent('house', 'house'))?.body;
  const start = {
    ...GROUND_START,
    width: house?.taxiway.widthM ?? 10,
    lights: house?.taxiway.lightsM ?? 0.5,
    lip: house?.taxiway.lipCm ?? 0,
  };
  return (
    <LabFrame
      user={user}
      facts={facts}
      at="taxi"
      title="Taxi and the tail"
      line={`${type.sheet.name} round a right-angled corner: where each wheel goes.`}
    >
      <Ground
        key={type.key}
        context={context}
        sheet={{ name: type.sheet.name, gear: type.sheet.gear, wing: type.sheet.wing }}
        start={start}
        initial={readState(start, query)}
        taxiwaySource={house?.taxiway.source ?? 'product default'}
      />
    </LabFrame>
  );
}
