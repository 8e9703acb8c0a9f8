<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** The parts of the work, as the interface names them: what an entry of the ledger belongs to. */
enum Area: string
{
    case Intake = 'intake';
    case Roll = 'roll';
    case LookAlikes = 'look_alikes';
    case Sections = 'sections';
    case Codes = 'codes';
    case Staff = 'staff';
    case PrintRoom = 'print_room';
    case Accounts = 'accounts';
    case YearTurn = 'year_turn';
    case Settings = 'settings';

    public function label(): string
    {
        return match ($this) {
            self::Intake => 'Intake',
            self::Roll => 'Roll',
            self::LookAlikes => 'Look-alikes',
            self::Sections => 'Sections',
            self::Codes => 'Codes and doors',
            self::Staff => 'Staff',
            self::PrintRoom => 'Print room',
            self::Accounts => 'Accounts',
            self::YearTurn => 'Year turn',
            self::Settings => 'Settings',
        };
    }

    /** @return list<Action> what is done in it */
    public function actions(): array
    {
        return array_values(array_filter(Action::cases(), fn(Action $a): bool => $a->area() === $this));
    }
}
