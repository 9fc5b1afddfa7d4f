import { holidayRegions, isHolidayRegion, publicHolidays } from '@clembo/formats/holidays';
import { z } from 'zod';
import { answer, BadRequest } from '@/server/answer';

const Asked = z.object({
  region: z.string().max(20),
  from: z.coerce.number().int().min(1900).max(2299),
  to: z.coerce.number().int().min(1900).max(2299),
});

/** With `?region=&from=&to=` the public holidays of these years, as day numbers; without, the regions that are known. */
export const GET = (request: Request): Promise<Response> =>
  answer(request, async () => {
    const query = new URL(request.url).searchParams;
    if (!query.has('region')) return { regions: holidayRegions() };
    const { region, from, to } = Asked.parse(Object.fromEntries(query));
    if (!isHolidayRegion(region)) throw new BadRequest(`No public holidays are known for “${region}”.`);
    if (to < from || to - from > 40) throw new BadRequest('Ask for at most forty years, the earlier one first.');
    return { holidays: publicHolidays(region, from, to) };
  });
