<?php

declare(strict_types=1);

use App\Platform\Must;
use App\Platform\Wishes;
use App\Platform\WishPart;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Illuminate\Validation\ValidationException;
use Vantrel\Core\Records\SectionKind;

// What a request asks for, as a value: read, checked and described from one constructor.

final readonly class Picnic
{
    /**
     * @param  list<string>  $guests
     * @param  array<string, string|null>  $dishes
     */
    public function __construct(
        #[Must('max:10')] public string $meadow,
        public SectionKind $kind,
        #[Must('min:1|max:2', each: 'string|max:5')] public array $guests,
        public ?string $note,
        #[Must('max:3', each: 'nullable|string|max:8')] public array $dishes = [],
        public int $hours = 2,
        public bool $rain = false,
        #[Must('date_format:Y-m-d')] public ?string $beginsOn = null,
        #[Must(['regex:/^(hill|lake)(,(hill|lake))*$/'])] public ?string $near = null,
        #[Must('sometimes|max:4')] public ?string $blanket = null,
    ) {}
}

/** @param  array<string, mixed>  $more */
function picnic(array $more = []): Picnic
{
    $asked = ['meadow' => 'Long', 'kind' => 'class', 'guests' => ['Ada'], 'note' => null, ...$more];

    return Wishes::of(Picnic::class, Request::create('/', 'POST', $asked));
}

it('makes a value of what was asked, with defaults for what was left out', function (): void {
    $wish = picnic();
    expect($wish->kind)
        ->toBe(SectionKind::ClassSection)
        ->and($wish->hours)
        ->toBe(2)
        ->and($wish->rain)
        ->toBeFalse()
        ->and($wish->dishes)
        ->toBe([])
        ->and($wish->beginsOn)
        ->toBeNull();
    $full = picnic([
        'hours' => '4',
        'rain' => 'true',
        'begins_on' => '2026-08-24',
        'dishes' => ['a' => 'soup', 'b' => null],
        'near' => 'lake,hill',
        'blanket' => 'wool',
    ]);
    expect($full->hours)
        ->toBe(4)
        ->and($full->rain)
        ->toBeTrue()
        ->and($full->beginsOn)
        ->toBe('2026-08-24')
        ->and($full->dishes)
        ->toBe(['a' => 'soup', 'b' => null])
        ->and($full->near)
        ->toBe('lake,hill');
});

it('names every part that is not as it must be, by the name the request has for it', function (
    array $asked,
    string $part,
): void {
    try {
        picnic($asked);
        $named = [];
    } catch (ValidationException $e) {
        $named = array_keys($e->errors());
    }
    expect($named)->toBe([$part]);
})->with([
    'nothing' => [['meadow' => ''], 'meadow'],
    'too long' => [['meadow' => 'elevenchars'], 'meadow'],
    'a list for a text' => [['meadow' => ['x']], 'meadow'],
    'no such kind' => [['kind' => 'club'], 'kind'],
    'too many' => [['guests' => ['a', 'b', 'c']], 'guests'],
    'one too long' => [['guests' => ['Ada', 'Barnaby']], 'guests.1'],
    'a text for a list' => [['guests' => 'Ada'], 'guests'],
    'no number' => [['hours' => 'two'], 'hours'],
    'no yes or no' => [['rain' => 'perhaps'], 'rain'],
    'a zero byte' => [['meadow' => "a\0b"], 'meadow'],
    'a zero byte in a day' => [['begins_on' => "2026-08-24\0"], 'begins_on'],
    'a zero byte in a list' => [['guests' => ['Ada', "\0"]], 'guests'],
    'a list for a day' => [['begins_on' => [[[]]]], 'begins_on'],
    'no day' => [['begins_on' => '24.8.2026'], 'begins_on'],
    'neither of them' => [['near' => 'hill,sea'], 'near'],
    'emptied where it may only be left out' => [['blanket' => null], 'blanket'],
]);

it('describes each part as it checks it', function (): void {
    $schemas = [];
    foreach (Wishes::parts(Picnic::class) as $part) {
        $schemas[$part->name] = [$part->required, $part->schema()];
    }
    expect($schemas)->toBe([
        'meadow' => [true, ['type' => 'string', 'maxLength' => 10]],
        'kind' => [true, ['type' => 'string', 'enum' => ['homeroom', 'class']]],
        'guests' => [true, ['type' => 'array', 'items' => ['type' => 'string']]],
        'note' => [true, ['type' => ['string', 'null']]],
        'dishes' => [false, ['type' => 'object', 'additionalProperties' => ['type' => ['string', 'null']]]],
        'hours' => [false, ['type' => 'integer']],
        'rain' => [false, ['type' => 'boolean']],
        'begins_on' => [false, ['type' => ['string', 'null'], 'format' => 'date']],
        'near' => [false, ['type' => ['string', 'null']]],
        'blanket' => [false, ['type' => 'string', 'maxLength' => 4]],
    ]);
});

it('has no controller that reads a request by name: what a route takes is a wish', function (): void {
    $reading = [];
    foreach (app('router')->getRoutes()->getRoutes() as $route) {
        assert($route instanceof Route);
        $controller = explode('@', $route->getActionName())[0];
        if (preg_match('/^App.(?!StandIns)/', $controller) === 1 && class_exists($controller)) {
            $code = (string) file_get_contents((string) (new ReflectionClass($controller))->getFileName());
            if (
                preg_match('/\$request->(string|input|integer|boolean|array|filled|has|validate|query|get)\(/', $code)
            ) {
                $reading[$controller] = true;
            }
        }
    }
    expect(array_keys($reading))->toBe([]);
    // Each wish can be read: every parameter has one type.
    foreach (glob(app_path('*/{Http/,}Wishes/*.php'), GLOB_BRACE) ?: [] as $file) {
        $wish = 'App\\' . str_replace(['/', '.php'], ['\\', ''], substr($file, strlen(app_path()) + 1));
        assert(class_exists($wish));
        foreach (Wishes::parts($wish) as $part) {
            expect($part)->toBeInstanceOf(WishPart::class)->and($part->rules())->not->toBe([]);
        }
    }
});
