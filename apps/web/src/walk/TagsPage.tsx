import { SheetPage } from './SheetPage';

/** Tags for all trees, to be printed. */
export const TagsPage = () => <SheetPage tags />;
