<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Entry;
use Vantrel\Core\Plan\Pointer;
use Vantrel\Core\Plan\Standing;
use Vantrel\Core\Plan\StandingAfter;
use Vantrel\Core\Plan\Stay;
use Vantrel\Core\Plan\Undo;
use Vantrel\Core\Plan\Written;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\Unique;

/**
 * Three people of one school, one of whom an entry made and one it moved; asked what stands once that entry has gone
 * back. What stood before is held in memory, and every question put to it is noted.
 */
function standingBefore(array $people): Standing
{
    return new class ($people) implements Standing {
        /** @var list<string> */
        public array $asked = [];

        /** @param  array<string, Person>  $people */
        public function __construct(private array $people) {}

        public function versions(Entity $entity, array $ids): array
        {
            return array_map(fn(Person $p): int => $p->version, array_intersect_key($this->people, array_flip($ids)));
        }

        public function rows(string $kind, string $column, array $values): array
        {
            return array_filter(
                $this->people,
                fn(Person $p): bool => in_array($column === 'id' ? $p->id : $p->values[$column], $values, true),
            );
        }

        public function rivals(Entity $entity, Unique $rule, array $wanted): array
        {
            $rivals = [];
            foreach ($wanted as $id => $values) {
                foreach ($this->people as $other) {
                    if (
                        $other->id !== $id &&
                        $rule->key($values) !== null &&
                        $rule->key($other->values) === $rule->key($values)
                    ) {
                        $rivals[$id] = $other->id;
                    }
                }
            }

            return $rivals;
        }

        public function used(array $ids): array
        {
            return $ids;
        }

        public function referring(Entity $child, string $column, array $ids): array
        {
            return array_filter(
                array_map(fn(Person $p): string => (string) $p->values[$column], $this->people),
                fn(string $parent): bool => in_array($parent, $ids, true),
            );
        }

        public function pointing(Entity $at, array $ids, int $but): array
        {
            $pointing = [];
            foreach ($this->people as $p) {
                foreach (['school_id', 'merged_into'] as $column) {
                    $to = (string) $p->values[$column];
                    if ($p->version !== $but && in_array($to, $ids, true)) {
                        $pointing[] = new Pointer(Entity::Person, $p->id, $column, $to);
                    }
                }
            }

            return $pointing;
        }

        public function held(Entity $entity, array $ids): array
        {
            return $ids;
        }

        public function writtenAfter(int $done, array $ids): array
        {
            return [9, 7, 5];
        }
    };
}

/** @param  array<string, string|int|null>  $more */
function ofSchool(string $id, int $version, array $more): Person
{
    return new Person($id, $version, [
        'school_id' => 'here',
        'kind' => 'student',
        'state' => 'active',
        'number' => null,
        'merged_into' => null,
        ...$more,
    ]);
}

/** @param  list<string>  $kept ids of records that stay as the entry wrote them */
function after(array $kept = []): StandingAfter
{
    $people = [
        'ada' => ofSchool('ada', 3, ['number' => '20417', 'merged_into' => 'kai']),
        'kai' => ofSchool('kai', 7, ['school_id' => 'there', 'number' => '070500']),
        'new' => ofSchool('new', 7, ['number' => '20999', 'merged_into' => 'ada']),
    ];
    $entry = new Entry(7, 7, Action::Accept, [
        Written::of(new Change(Entity::Person, 'new', null, [], ['number' => '20999'], 'made')),
        Written::of(
            new Change(
                Entity::Person,
                'kai',
                4,
                ['school_id' => 'here', 'number' => '20500', 'merged_into' => 'ada', 'given_name' => 'Kay'],
                ['school_id' => 'there', 'number' => '070500', 'merged_into' => null, 'given_name' => 'Kai'],
                'moved',
            ),
        ),
        Written::of(new Change(Entity::SignIn, 'si-new', null, [], ['user_name' => 'new'], 'made')),
    ]);
    $stays = array_fill_keys($kept, Stay::cases()[0]);

    return new StandingAfter(
        standingBefore($people),
        new Undo(7, $kept === [] ? [] : ['people' => $stays], 3, [], [], false),
        $entry,
    );
}

/** @return array<string, string> id to what ties it to others */
function tied(array $rows): array
{
    return array_map(
        fn(
            Record $r,
        ): string => "$r->version {$r->values['school_id']} {$r->values['number']} {$r->values['merged_into']}",
        $rows,
    );
}

it('knows versions as they will be: what was made is gone, what was changed is what it was', function (): void {
    expect(after()->versions(Entity::Person, ['ada', 'kai', 'new', 'nobody']))
        ->toBe(['ada' => 3, 'kai' => 4])
        ->and(after(['kai'])->versions(Entity::Person, ['ada', 'kai', 'new']))
        ->toBe(['ada' => 3, 'kai' => 7])
        ->and(after(['new', 'kai'])->versions(Entity::Person, ['new']))
        ->toBe(['new' => 7]);
});

it('knows rows as they will be, those too that come under a value again', function (): void {
    expect(tied(after()->rows(Person::class, 'id', ['ada', 'kai', 'new'])))
        ->toBe(['ada' => '3 here 20417 kai', 'kai' => '4 here 20500 ada'])
        // By what it goes back to, and not any more by what it leaves.
        ->and(tied(after()->rows(Person::class, 'school_id', ['here'])))
        ->toBe(['ada' => '3 here 20417 kai', 'kai' => '4 here 20500 ada'])
        ->and(tied(after()->rows(Person::class, 'school_id', ['there'])))
        ->toBe([])
        ->and(tied(after()->rows(Person::class, 'merged_into', ['ada'])))
        ->toBe(['kai' => '4 here 20500 ada'])
        ->and(tied(after(['kai', 'new'])->rows(Person::class, 'school_id', ['here', 'there'])))
        ->toBe(['ada' => '3 here 20417 kai', 'kai' => '7 there 070500 ', 'new' => '7 here 20999 ada']);
});

it('knows who will be in the way', function (): void {
    $rule = new Unique(['school_id', 'kind', 'number'], 'state', 'merged', true);
    $wants = fn(string $number, string $school = 'here'): array => [
        'x' => ['school_id' => $school, 'kind' => 'student', 'state' => 'active', 'number' => $number],
    ];
    // As before, where nothing of it goes back.
    expect(after()->rivals(Entity::Person, $rule, $wants('20417')))
        ->toBe(['x' => 'ada'])
        // Its number goes with what was made, and with what is moved.
        ->and(after()->rivals(Entity::Person, $rule, $wants('20999')))
        ->toBe([])
        ->and(after()->rivals(Entity::Person, $rule, $wants('070500', 'there')))
        ->toBe([])
        // What goes back takes its own again.
        ->and(after()->rivals(Entity::Person, $rule, $wants('20500')))
        ->toBe(['x' => 'kai'])
        ->and(after(['kai'])->rivals(Entity::Person, $rule, $wants('20500')))
        ->toBe([])
        ->and(after(['kai', 'new'])->rivals(Entity::Person, $rule, [...$wants('20999'), 'y' => $wants('1')['x']]))
        ->toBe(['x' => 'new'])
        // Nobody is in the way of themselves, nor of one the rule is not about.
        ->and(after()->rivals(Entity::Person, $rule, ['kai' => $wants('20500')['x']]))
        ->toBe([])
        ->and(
            after()->rivals(Entity::Person, $rule, [
                'x' => ['state' => 'merged', ...$wants('20500')['x'], 'state' => 'merged'],
            ]),
        )
        ->toBe([]);
});

it('knows who will point at whom', function (): void {
    expect(after()->referring(Entity::Person, 'merged_into', ['ada', 'kai']))
        ->toBe(['ada' => 'kai', 'kai' => 'ada'])
        ->and(after()->referring(Entity::Person, 'merged_into', ['kai']))
        ->toBe(['ada' => 'kai'])
        ->and(after()->referring(Entity::Person, 'school_id', ['there']))
        ->toBe([])
        ->and(after()->referring(Entity::Person, 'school_id', ['here']))
        ->toBe(['ada' => 'here', 'kai' => 'here'])
        ->and(after(['kai', 'new'])->referring(Entity::Person, 'school_id', ['there']))
        ->toBe(['kai' => 'there']);
});

it('asks of what is gone neither whether it was used nor whether it is held', function (): void {
    expect(after()->used(['si-new', 'si-old']))
        ->toBe(['si-old'])
        ->and(after()->held(Entity::Person, ['new', 'ada', 'kai']))
        ->toBe(['ada', 'kai'])
        ->and(after(['new'])->held(Entity::Person, ['new', 'ada']))
        ->toBe(['new', 'ada'])
        // The entry itself has been undone by then.
        ->and(after()->writtenAfter(3, ['ada']))
        ->toBe([9, 5]);
});
