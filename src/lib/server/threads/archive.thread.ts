import { writeArchive } from '../yard-archive/write';

/** Writes a whole yard as open files away from the requests. */
export default writeArchive;
