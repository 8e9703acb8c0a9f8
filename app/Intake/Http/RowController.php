<?php

declare(strict_types=1);

namespace App\Intake\Http;

use App\Intake\Http\Wishes\RowsWish;
use App\Intake\Http\Wishes\SheetWish;
use App\Intake\KeptPictures;
use App\Intake\RowsToMend;
use App\Intake\Views\RowPage;
use App\Intake\Views\SheetPage;
use App\Models\Intake;
use App\Models\IntakeState;
use App\Platform\Answers;
use App\Platform\SheetFormat;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Vantrel\Core\Plan\Refusal;

/** The rows of a list: as the plan has them, as they stand in the sheet, and those to mend. */
final class RowController
{
    private const PAGE = 500;

    #[Answers(RowPage::class, 'Rows of the plan, in the order of the file')]
    #[Takes(RowsWish::class)]
    public function rows(Intake $intake, Request $request): RowPage
    {
        $wish = Wishes::of(RowsWish::class, $request);
        $rows = DB::table('import_rows')
            ->where('import_id', $intake->id)
            ->when($wish->verdict !== null, fn($q) => $q->whereIn('verdict', explode(',', (string) $wish->verdict)))
            ->where('id', '>', $wish->after)
            ->orderBy('id')
            ->limit(self::PAGE + 1)
            ->get(['id', 'content']);
        $page = $rows->take(self::PAGE);

        return new RowPage(
            array_values(
                $page->map(fn(object $r): mixed => json_decode($r->content, false, 64, JSON_THROW_ON_ERROR))->all(),
            ),
            $rows->count() > self::PAGE ? (string) $page->last()?->id : null,
        );
    }

    #[Answers(SheetPage::class, 'A sheet of the list, cell for cell as it came, and what was made of it')]
    #[Takes(SheetWish::class)]
    public function sheet(Intake $intake, Request $request): SheetPage
    {
        $wish = Wishes::of(SheetWish::class, $request);

        return KeptPictures::page($intake, $wish->sheet, $wish->after);
    }

    #[Answers('file', 'The rows that need work, as a workbook with what to do beside each')]
    public function toMend(Intake $intake, RowsToMend $rows): BinaryFileResponse
    {
        if (!in_array($intake->state, [IntakeState::Planned, IntakeState::Applied], true)) {
            throw new Refusal('There is no plan of this list yet.');
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'mend');
        $rows->write($intake, $path);
        $name =
            trim((string) preg_replace(['/\.[A-Za-z0-9]{1,5}$/', '/[\/\\\\%\p{Cc}]+/u'], ['', ' '], $intake->title)) .
            ', rows to mend.xlsx';

        return (new BinaryFileResponse($path, 200, [
            'Content-Type' => SheetFormat::Xlsx->contentType(),
            'Cache-Control' => 'no-store',
        ]))
            ->setContentDisposition('attachment', $name, Str::ascii($name))
            ->deleteFileAfterSend();
    }
}
