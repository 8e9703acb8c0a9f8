<?php

declare(strict_types=1);

namespace App\Platform;

use BackedEnum;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use LogicException;
use ReflectionNamedType;
use ReflectionParameter;

/** One part of a wish: a parameter of its constructor, as it is asked for, checked and described. */
final readonly class WishPart
{
    /** As the request names it: `beginsOn` is `begins_on`. */
    public string $name;

    public bool $required;

    private Must $must;

    private string $type;

    private bool $nullable;

    public function __construct(private ReflectionParameter $parameter)
    {
        $type = $parameter->getType();
        if (!($type instanceof ReflectionNamedType)) {
            throw new LogicException("\${$parameter->getName()} of a wish needs one type.");
        }
        $this->name = Str::snake($parameter->getName());
        $this->required = !$parameter->isDefaultValueAvailable();
        $this->must = ($parameter->getAttributes(Must::class)[0] ?? null)?->newInstance() ?? new Must('');
        $this->type = $type->getName();
        $this->nullable = $type->allowsNull();
    }

    /** @return array<string, list<mixed>> the framework's rules by name */
    public function rules(): array
    {
        $presence = match (true) {
            in_array('sometimes', $this->must->rules(), true) => 'sometimes',
            !$this->required => 'nullable',
            $this->nullable => 'present|nullable',
            default => 'required',
        };

        return [
            $this->name => [
                // What is not of its kind is asked nothing further.
                'bail',
                ...explode('|', $presence),
                match (true) {
                    $this->type === 'int' => 'integer',
                    $this->type === 'float' => 'numeric',
                    $this->type === 'bool' => 'boolean',
                    $this->type === 'array' => 'array',
                    $this->type === UploadedFile::class => 'file',
                    is_a($this->type, BackedEnum::class, true) => Rule::enum($this->type),
                    default => 'string',
                },
                ...$this->must->rules(),
            ],
        ];
    }

    /** @return list<string> the framework's rules for each entry of a list or map; none where nothing is said of it */
    public function each(): array
    {
        return $this->must->each === '' ? [] : ['bail', ...explode('|', $this->must->each)];
    }

    /**
     * What was typed, with a yes or no that came in the query as the word it is there.
     *
     * @param  array<array-key, mixed>  $typed
     * @return array<array-key, mixed>
     */
    public function plain(array $typed): array
    {
        if ($this->type === 'bool' && in_array($typed[$this->name] ?? null, ['true', 'false'], true)) {
            $typed[$this->name] = $typed[$this->name] === 'true';
        }

        return $typed;
    }

    /** The value as its type wants it; the default where nothing was said. */
    public function value(mixed $said): mixed
    {
        if ($said === null) {
            return $this->required ? null : $this->parameter->getDefaultValue();
        }

        return match (true) {
            $this->type === 'int' => (int) (is_numeric($said) ? $said : 0),
            $this->type === 'float' => (float) (is_numeric($said) ? $said : 0),
            $this->type === 'bool' => (bool) $said,
            is_a($this->type, BackedEnum::class, true) => $this->type::from(is_scalar($said) ? (string) $said : ''),
            default => $said,
        };
    }

    /** @return array<string, mixed> its JSON Schema */
    public function schema(): array
    {
        $schema = match ($this->type) {
            'int' => ['type' => 'integer'],
            'float' => ['type' => 'number'],
            'bool' => ['type' => 'boolean'],
            'array' => $this->entries(),
            UploadedFile::class => ['type' => 'string', 'format' => 'binary'],
            default => ['type' => 'string'],
        };
        if (is_a($this->type, BackedEnum::class, true)) {
            $schema['enum'] = array_column($this->type::cases(), 'value');
        }
        foreach ($this->must->rules() as $rule) {
            [$word, $value] = explode(':', $rule, 2) + [1 => ''];
            $schema += match ($word) {
                'in' => ['enum' => explode(',', $value)],
                'date_format' => $value === 'Y-m-d' ? ['format' => 'date'] : [],
                'max' => $schema['type'] === 'string' ? ['maxLength' => (int) $value] : [],
                default => [],
            };
        }
        if ($this->nullable && !in_array('sometimes', $this->must->rules(), true)) {
            $schema['type'] = [$schema['type'], 'null'];
        }

        return $schema;
    }

    /** @return array<string, mixed> */
    private function entries(): array
    {
        $rules = explode('|', $this->must->each);
        $item = ['type' => in_array('nullable', $rules, true) ? ['string', 'null'] : 'string'];
        if (in_array('file', $rules, true)) {
            $item['format'] = 'binary';
        }

        return $this->isMap()
            ? ['type' => 'object', 'additionalProperties' => $item]
            : ['type' => 'array', 'items' => $item];
    }

    private function isMap(): bool
    {
        $doc = (string) $this->parameter->getDeclaringFunction()->getDocComment();

        return preg_match('/@param\s+array<string, [^$]*\$' . $this->parameter->getName() . '\b/', $doc) === 1;
    }
}
