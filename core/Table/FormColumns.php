<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/**
 * The answers to a form that guardians filled in: what it asks of "you", and the address it notes by itself, are
 * theirs. How forms head their columns: common practice, no source.
 */
final class FormColumns
{
    private const FILLED_AT =
        '/^(timestamp|time stamp|submission (date|time|id)|submitted( at| on)?|completion time|response id|' .
        'marca temporal|horodateur|horodatage|zeitstempel|carimbo de data hora|fecha de envio)$/';

    private const YOURS = '/^(your|votre|vos|ihre?) .*|^(su|tu) (nombre|correo|telefono)/';

    /**
     * @param  list<Column>  $columns
     * @return list<Column>
     */
    public static function found(array $columns): array
    {
        $isForm = $guardians = $mails = false;
        foreach ($columns as $column) {
            $isForm = $isForm || preg_match(self::FILLED_AT, NameKey::of($column->heading)) === 1;
            $guardians = $guardians || ($column->field !== null && str_starts_with($column->field->value, 'guardian'));
            $mails = $mails || $column->field === Field::GuardianEmail;
        }

        return !$isForm || !$guardians
            ? $columns
            : array_map(
                fn(Column $c): Column => match (true) {
                    $c->why === 'as you said' || Heading::isOfStudents($c->heading) => $c,
                    $c->field === Field::FullName && preg_match(self::YOURS, NameKey::of($c->heading)) === 1
                        => self::theirs($c, Field::GuardianName),
                    $c->field === Field::Email && !$mails => self::theirs($c, Field::GuardianEmail),
                    default => $c,
                },
                $columns,
            );
    }

    private static function theirs(Column $column, Field $field): Column
    {
        return new Column($column->index, $column->heading, $column->samples, $field, 'of who filled the form in');
    }
}
