<?php

declare(strict_types=1);

namespace App\Mailroom;

use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Mailroom\Digest;
use Vantrel\Core\Records\NoticeKind;

/** A digest in the words of its reader's language. */
final readonly class DigestText
{
    /** @param  string  $link where they choose how often it comes */
    public function __construct(public FamilyWords $words, private string $school, private string $link) {}

    /** @param  list<array{string, Digest}>  $children given name and what is told */
    public function subject(array $children): string
    {
        return $this->words->say('digest.subject', [
            'school' => $this->school,
            'names' => $this->words->names(array_column($children, 0)),
        ]);
    }

    /** @param  list<array{string, Digest}>  $children */
    public function body(array $children): string
    {
        $blocks = [];
        foreach ($children as [$name, $digest]) {
            if (count($children) > 1) {
                $blocks[] = mb_strtoupper($name);
            }
            foreach (
                ['missing' => $digest->missing, 'coming' => $digest->coming, 'new' => $digest->new]
                as $key => $of
            ) {
                if ($of !== []) {
                    $blocks[] = $this->words->say("digest.$key") . "\n";
                    $blocks[] = implode("\n", array_map($this->line(...), $of));
                }
            }
        }
        $blocks[] = $this->words->say('digest.why', ['school' => $this->school]);
        $blocks[] = $this->words->say('digest.choose') . "\n$this->link";

        return implode("\n\n", array_map(trim(...), $blocks)) . "\n";
    }

    private function line(BoardItem $item): string
    {
        $day =
            $item->day === ''
                ? ''
                : ($item->kind === NoticeKind::Work
                    ? $this->words->say('digest.due', ['day' => $this->words->day($item->day)])
                    : $this->words->day($item->day));
        $where = implode(', ', array_filter([$day, $item->section], fn(string $v): bool => $v !== ''));
        $body = trim((string) preg_replace('/\s+/u', ' ', $item->body));

        return '- ' . $item->title . ($where === '' ? '' : " ($where)") . ($body === '' ? '' : ": $body");
    }
}
