<?php

declare(strict_types=1);

namespace App\Mailroom;

use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Mailroom\Digest;
use Vantrel\Core\Mailroom\Html;
use Vantrel\Core\Records\NoticeKind;

/** A digest in the words of its reader's language. */
final readonly class DigestText
{
    /**
     * @param  string  $link where they choose how often it comes
     * @param  string  $page where they sign in and read all of it
     */
    public function __construct(
        public FamilyWords $words,
        private string $school,
        private string $link,
        private string $page,
    ) {}

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
                $blocks[] = $this->words->apart(mb_strtoupper($name));
            }
            foreach ($this->parts($digest) as $key => $of) {
                $blocks[] = $this->words->say("digest.$key") . "\n";
                $lines = array_map($this->line(...), Digest::shown($of));
                $blocks[] = implode("\n", [...$lines, ...$this->more($of)]);
            }
        }
        if ($this->isCut($children)) {
            $blocks[] = $this->words->say('digest.all') . "\n$this->page";
        }
        $blocks[] = $this->words->say('digest.why', ['school' => $this->school]);
        $blocks[] = $this->words->say('digest.choose') . "\n$this->link";

        return implode("\n\n", array_map(trim(...), $blocks)) . "\n";
    }

    /**
     * The same as a page: a heading for each child, and for what is missing, coming and new.
     *
     * @param  list<array{string, Digest}>  $children
     */
    public function html(array $children): string
    {
        $heading = 'margin:24px 0 4px;font-size';
        $blocks = [];
        foreach ($children as [$name, $digest]) {
            $blocks[] = "<h1 style=\"$heading:22px\"><bdi>" . Html::line($name) . '</bdi></h1>';
            foreach ($this->parts($digest) as $key => $of) {
                $blocks[] = "<h2 style=\"$heading:16px\">" . Html::line($this->words->say("digest.$key")) . '</h2>';
                $blocks[] =
                    '<ul style="margin:0;padding-inline-start:20px">' .
                    implode(
                        '',
                        array_map(fn(string $item): string => "<li>$item</li>", [
                            ...array_map($this->item(...), Digest::shown($of)),
                            ...array_map(Html::line(...), $this->more($of)),
                        ]),
                    ) .
                    '</ul>';
            }
        }
        if ($this->isCut($children)) {
            $blocks[] =
                '<p>' .
                Html::line($this->words->say('digest.all')) .
                '<br>' .
                '<span dir="ltr">' .
                Html::line($this->page) .
                '</span></p>';
        }
        $why = Html::line($this->words->say('digest.why', ['school' => $this->school]));
        $choose = Html::line($this->words->say('digest.choose'));
        $blocks[] =
            '<p style="margin-top:32px;padding-top:12px;border-top:1px solid #1d2b2a;font-size:14px">' .
            "$why<br>$choose<br><span dir=\"ltr\">" .
            Html::line($this->link) .
            '</span></p>';

        return Html::page(implode("\n", $blocks), $this->words->language);
    }

    /** @return array<string, list<BoardItem>> what there is, by what it is called */
    private function parts(Digest $digest): array
    {
        return array_filter(
            ['missing' => $digest->missing, 'coming' => $digest->coming, 'new' => $digest->new],
            fn(array $of): bool => $of !== [],
        );
    }

    /**
     * @param  list<BoardItem>  $of
     * @return list<string> the line that says how many are left out, if any are
     */
    private function more(array $of): array
    {
        $count = Digest::leftOut($of);

        return $count > 0 ? [$this->words->say('digest.more', ['count' => (string) $count])] : [];
    }

    /** @param  list<array{string, Digest}>  $children */
    private function isCut(array $children): bool
    {
        return array_filter($children, fn(array $child): bool => $child[1]->isCut()) !== [];
    }

    private function item(BoardItem $item): string
    {
        $where = $this->where($item);
        $body = Digest::beginning($item->body);

        return '<span dir="auto" style="font-weight:bold">' .
            Html::line($item->title) .
            '</span>' .
            ($where === '' ? '' : '<br>' . Html::line($where)) .
            ($body === '' ? '' : '<br><span dir="auto">' . nl2br(Html::line($body), false) . '</span>');
    }

    private function line(BoardItem $item): string
    {
        $where = $this->where($item);
        $body = (string) preg_replace('/\s+/u', ' ', Digest::beginning($item->body));

        return '- ' .
            $this->words->apart($item->title) .
            ($where === '' ? '' : " ($where)") .
            ($body === '' ? '' : ': ' . $this->words->apart($body));
    }

    /** The day, and the section. */
    private function where(BoardItem $item): string
    {
        $day =
            $item->day === ''
                ? ''
                : ($item->kind === NoticeKind::Work
                    ? $this->words->say('digest.due', ['day' => $this->words->day($item->day)])
                    : $this->words->day($item->day));
        $parts = array_filter([$day, $this->words->apart($item->section)], fn(string $v): bool => $v !== '');

        return $this->words->names(array_values($parts));
    }
}
