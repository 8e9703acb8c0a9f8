<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** What is asked of a collection: which page, in which order, which records and which of their fields. */
final readonly class Query
{
    /** As many in an answer where nothing is said. */
    public const LIMIT = 100;

    /** At most so many: what the server makes in one piece. */
    public const MOST = 5000;

    /**
     * @param  list<string>  $fields to be in the answer; none for all
     */
    public function __construct(
        public int $limit,
        public int $offset,
        public ?string $sort,
        public bool $down,
        public ?Filter $filter,
        public array $fields,
    ) {}

    /**
     * @param  array<string, mixed>  $typed parameters of the request
     *
     * @throws Fault
     */
    public static function read(array $typed, Kind $kind): self
    {
        $text = fn(string $name): string => is_string($typed[$name] ?? null) ? trim($typed[$name]) : '';
        $fields = $text('fields') === '' ? [] : array_map(trim(...), explode(',', $text('fields')));
        foreach ($fields as $field) {
            if (!isset($kind->fields()[$field])) {
                throw new Fault(CodeMinor::InvalidSelectionField, "There is no field $field of $kind->value.");
            }
        }
        $sort = $text('sort') === '' ? null : $text('sort');
        $sorted = $sort === null ? null : $kind->fields()[$sort] ?? null;
        if ($sort !== null && ($sorted === null || $sorted->many || self::isCompound($sorted))) {
            throw new Fault(CodeMinor::InvalidSortField, "$kind->value are not sorted by $sort.");
        }
        if (!in_array($text('orderBy'), ['', 'asc', 'desc'], true)) {
            throw new Fault(CodeMinor::InvalidData, 'orderBy is asc or desc.');
        }

        return new self(
            min(self::MOST, self::whole($text('limit'), self::LIMIT, 1, 'limit')),
            self::whole($text('offset'), 0, 0, 'offset'),
            $sort,
            $text('orderBy') === 'desc',
            $text('filter') === '' ? null : Filter::parse($text('filter'), $kind),
            $fields,
        );
    }

    /**
     * The pages beside this one, as the Link header names them (RFC 8288).
     *
     * @param  string  $address of the collection
     * @param  array<string, string>  $typed the parameters of the request
     */
    public function links(string $address, array $typed, int $total): string
    {
        $at = fn(int $offset, string $rel): string => "<$address?" .
            http_build_query(
                [...$typed, 'limit' => (string) $this->limit, 'offset' => (string) $offset],
                '',
                '&',
                PHP_QUERY_RFC3986,
            ) .
            ">; rel=\"$rel\"";
        $last = $total === 0 ? 0 : intdiv($total - 1, $this->limit) * $this->limit;
        $links = [$at(0, 'first'), $at($last, 'last')];
        if ($this->offset + $this->limit < $total) {
            $links[] = $at($this->offset + $this->limit, 'next');
        }
        if ($this->offset > 0) {
            $links[] = $at(max(0, $this->offset - $this->limit), 'prev');
        }

        return implode(', ', $links);
    }

    /**
     * A record with the fields asked for only.
     *
     * @param  array<string, mixed>  $record
     * @return array<string, mixed>
     */
    public function select(array $record): array
    {
        return $this->fields === [] ? $record : array_intersect_key($record, array_flip($this->fields));
    }

    private static function isCompound(Field $field): bool
    {
        return in_array($field->type, [FieldType::Reference, FieldType::Role, FieldType::Identifier], true);
    }

    private static function whole(string $typed, int $none, int $least, string $name): int
    {
        if ($typed === '') {
            return $none;
        }
        if (preg_match('/^\d{1,9}$/', $typed) !== 1 || (int) $typed < $least) {
            throw new Fault(CodeMinor::InvalidData, "$name is a whole number from $least.");
        }

        return (int) $typed;
    }
}
