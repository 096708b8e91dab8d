export { Loading as default } from '@/ui/shared/parts';
