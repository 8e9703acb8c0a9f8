<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\Unique;

/** The records as they stand at this moment, as far as an undo asks. All questions are put for many at once. */
interface Standing
{
    /**
     * @param  list<string>  $ids
     * @return array<string, int> id to version of those that are there
     */
    public function versions(Entity $entity, array $ids): array;

    /**
     * @template T of Record
     *
     * @param  class-string<T>  $kind
     * @param  string  $column `id` or one that refers to another record
     * @param  list<string>  $values
     * @return array<string, T> id to each record whose column holds one of them, with its columns that tie it to others
     */
    public function rows(string $kind, string $column, array $values): array;

    /**
     * @param  array<string, array<string, string|int|null>>  $wanted id to what it would be
     * @return array<string, string> id of each that would be like another, to that other
     */
    public function rivals(Entity $entity, Unique $rule, array $wanted): array;

    /**
     * @param  list<string>  $ids of sign-ins
     * @return list<string> those somebody has signed in with
     */
    public function used(array $ids): array;

    /**
     * Records of every kind that point at some of one kind, but for those last written by an entry: of a list of 10,000
     * nearly all are its own.
     *
     * @param  list<string>  $ids of the records pointed at
     * @param  int  $but number of the entry: version of the records left out
     * @return list<Pointer>
     */
    public function pointing(Entity $at, array $ids, int $but): array;

    /**
     * @param  string  $column of the child, one of its references
     * @param  list<string>  $ids of parents
     * @return array<string, string> id of each child that points at one of them, to the one it points at
     */
    public function referring(Entity $child, string $column, array $ids): array;

    /**
     * @param  list<string>  $ids
     * @return list<string> those that records outside plans hold: somebody has worked with them
     */
    public function held(Entity $entity, array $ids): array;

    /**
     * @param  list<string>  $ids of records of any kind
     * @param  int  $done place in the order of what was done
     * @return list<int> numbers of entries done after it that wrote them, have not been undone and can be, the last
     *     done first
     */
    public function writtenAfter(int $done, array $ids): array;
}
