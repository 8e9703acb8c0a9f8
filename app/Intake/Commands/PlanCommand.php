<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\FilesOfList;
use App\Intake\IntakePlans;
use App\Intake\PlanJson;
use App\Intake\PlannedIntake;
use App\Models\School;
use Illuminate\Console\Command;
use Vantrel\Core\Intake\Scope;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Table\UnreadableList;

/** Computes what lists would change and prints it. Changes nothing. */
class PlanCommand extends Command
{
    private const OPTIONS = '{file* : the lists, brought in together}
        {--school= : code of the school; may be left out where there is one}
        {--mode=additions : additions, or everyone: who is missing leaves}
        {--scope=school : whose whole list it is: school, grade:04 or section:ID}
        {--confirm= : the words that let a list of everyone go past its trip-wire}
        {--answers= : JSON file of question id to choice}
        {--json : print the whole plan as JSON}
        {--changes : with it, what applying would write}';

    protected $signature = 'vantrel:plan ' . self::OPTIONS;

    protected $description = 'Print what lists would change';

    public function handle(IntakePlans $planner): int
    {
        $planned = $this->plan($planner, '01K3QZ0000');
        if ($planned === null) {
            return self::INVALID;
        }
        $this->show($planned);

        return self::SUCCESS;
    }

    protected static function signatureOf(string $name): string
    {
        return "$name " . self::OPTIONS;
    }

    /** @param  string  $seed a ULID, or the first ten characters of one: the rest is then made from the files */
    protected function plan(IntakePlans $planner, string $seed): ?PlannedIntake
    {
        ini_set('memory_limit', '512M');
        /** @var list<string> $files */
        $files = (array) $this->argument('file');
        $school = $this->school();
        if ($school === null) {
            $this->error(
                'No such school. Use --school with one of: ' .
                    implode(', ', School::query()->orderBy('code')->pluck('code')->all()),
            );

            return null;
        }
        foreach ($files as $file) {
            if (!is_file($file)) {
                $this->error("$file is not there.");

                return null;
            }
        }
        $answers = $this->answers();
        if ($answers === null) {
            return null;
        }
        if (!in_array($this->option('mode'), ['additions', 'everyone'], true)) {
            $this->error('--mode is additions or everyone.');

            return null;
        }
        $seed =
            strlen($seed) === 26
                ? $seed
                : $seed .
                    strtoupper(
                        substr(
                            hash(
                                'sha256',
                                implode(
                                    '|',
                                    array_map(fn(string $f): string => (string) hash_file('sha256', $f), $files),
                                ),
                            ),
                            0,
                            16,
                        ),
                    );
        try {
            $scope =
                $this->option('mode') === 'everyone' ? (string) Scope::read((string) $this->option('scope')) : null;

            return $planner->planFiles(
                new FilesOfList(
                    array_map(fn(string $f): array => [$f, basename($f)], $files),
                    $school,
                    implode(', ', array_map(basename(...), $files)),
                    $seed,
                    answers: $answers,
                    everyone: $scope,
                    confirmed: (string) $this->option('confirm'),
                ),
            );
        } catch (UnreadableList | Refusal $e) {
            $this->error($e->getMessage());

            return null;
        }
    }

    protected function show(PlannedIntake $planned): void
    {
        if ($this->option('json')) {
            $this->output->writeln(
                PlanJson::of($planned, (bool) $this->option('changes')),
                \Symfony\Component\Console\Output\OutputInterface::OUTPUT_RAW,
            );

            return;
        }
        $plan = $planned->plan;
        $this->line($plan->sentence);
        foreach ($plan->warnings as $warning) {
            $this->line("Note: $warning");
        }
        foreach ($plan->blockers as $blocker) {
            $this->line("Stops: $blocker");
        }
        $open = array_filter(
            $plan->rows,
            fn(PlanRow $r): bool => in_array($r->verdict, [Verdict::Ask, Verdict::Cannot, Verdict::Leaving], true),
        );
        if ($open !== []) {
            $this->table(
                ['Row', 'Verdict', 'Name', 'Why'],
                array_map(
                    fn(PlanRow $r): array => [
                        trim(($r->number ?: '') . ' ' . $r->sheet),
                        $r->verdict->value,
                        $r->cells['Name']->after,
                        $r->problems === [] ? $r->why : $r->problems[0]->column . ': ' . $r->problems[0]->message,
                    ],
                    $open,
                ),
            );
        }
        $asked = array_filter($plan->openQuestions(), fn(Question $q): bool => $q->row === null);
        foreach ($asked as $question) {
            $this->line(
                "Question $question->id: $question->text " .
                    implode(' / ', array_map(fn($c): string => "$c->key ($c->label)", $question->choices)),
            );
        }
    }

    /** The one that is named, or the only one there is. */
    protected function school(): ?School
    {
        $code = $this->option('school');

        return $code === null && School::query()->count() === 1
            ? School::query()->first()
            : School::query()->where('code', (string) $code)->first();
    }

    /** @return array<string, string>|null */
    private function answers(): ?array
    {
        if ($this->option('answers') === null) {
            return [];
        }
        $decoded = json_decode((string) @file_get_contents((string) $this->option('answers')), true);
        if (!is_array($decoded)) {
            $this->error("{$this->option('answers')} is not a JSON object of question ids and choices.");

            return null;
        }

        return array_map(strval(...), array_filter($decoded, is_scalar(...)));
    }
}
