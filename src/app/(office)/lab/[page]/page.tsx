import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { LAB_PAGES, type LabPage, LAB_TITLES } from '@/domain/lab-pages';
import { LabStage } from '../../../lab-stage';
import type { LabSearch } from '../../../lab-frame';

type Params = Promise<{ page: string }>;
const pageOf = (name: string): LabPage | undefined => LAB_PAGES.find((p) => p === name);

export async function generateMetadata({ params }: { params: Params }): Promise<Metadata> {
  const page = pageOf((await params).page);
  return { title: page ? LAB_TITLES[page] : 'Not found' };
}

export default async function LabModelPage({ params, searchParams }: { params: Params; searchParams: LabSearch }) {
  const page = pageOf((await params).page);
  if (!page) notFound();
  return <LabStage page={page} search={searchParams} />;
}
