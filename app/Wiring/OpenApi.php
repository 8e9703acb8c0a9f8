<?php

declare(strict_types=1);

namespace App\Wiring;

use App\Platform\Answers;
use App\Platform\BodySize;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Platform\WishPart;
use BackedEnum;
use Illuminate\Routing\Route;
use Illuminate\Routing\Router;
use ReflectionClass;
use ReflectionEnum;
use ReflectionMethod;
use ReflectionNamedType;
use ReflectionProperty;
use RuntimeException;

/**
 * The contract of the API as OpenAPI 3.1, from the routes, their {@see Answers} and {@see Takes}, and the typed public
 * properties of what they answer with.
 */
final class OpenApi
{
    /** @var array<string, array<string, mixed>> */
    private array $schemas = [];

    public function __construct(private readonly Router $router) {}

    /** @return array<string, mixed> */
    public function document(): array
    {
        $paths = [];
        foreach ($this->router->getRoutes()->getRoutes() as $route) {
            if (str_starts_with($route->uri(), 'api/') && !$route->isFallback) {
                $paths['/' . $route->uri()][strtolower($route->methods()[0])] = $this->operation($route);
            }
        }
        ksort($paths);
        ksort($this->schemas);

        return [
            'openapi' => '3.1.0',
            'info' => [
                'title' => 'Vantrel',
                'version' => '1',
                'description' => 'Session cookies; errors are problem details (RFC 9457).',
            ],
            'paths' => $paths,
            'components' => ['schemas' => $this->schemas],
        ];
    }

    /** @return array<string, mixed> */
    private function operation(Route $route): array
    {
        [$class, $method] = explode('@', $route->getActionName()) + [1 => '__invoke'];
        if (!class_exists($class)) {
            throw new RuntimeException("{$route->uri()} has no controller.");
        }
        $reflection = new ReflectionMethod($class, $method);
        $answers = (
            $reflection->getAttributes(Answers::class)[0] ??
            throw new RuntimeException("{$route->uri()} does not say what it answers with.")
        )->newInstance();
        $takes = array_merge(
            ...array_map(
                Wishes::parts(...),
                ($reflection->getAttributes(Takes::class)[0] ?? null)?->newInstance()->wishes ?? [],
            ),
        );
        $isGet = $route->methods()[0] === 'GET';
        $parameters = array_map(
            fn(string $name): array => [
                'name' => $name,
                'in' => 'path',
                'required' => true,
                'schema' => ['type' => 'string'],
            ],
            $route->parameterNames(),
        );
        if ($isGet) {
            foreach ($takes as $part) {
                $parameters[] = [
                    'name' => $part->name,
                    'in' => 'query',
                    'required' => $part->required,
                    'schema' => $part->schema(),
                ];
            }
        }
        $operation = [
            'operationId' => $method . (new ReflectionClass($class))->getShortName(),
            'summary' => $answers->summary,
        ];
        if ($parameters !== []) {
            $operation['parameters'] = $parameters;
        }
        if (!$isGet && $takes !== []) {
            $operation['requestBody'] = [
                'required' => true,
                'content' => [
                    self::hasFile($takes) ? 'multipart/form-data' : 'application/json' => [
                        'schema' => self::body($takes),
                    ],
                ],
            ];
        }
        $operation['responses'] = match ($answers->with) {
            null => ['204' => ['description' => 'Done']],
            'file' => [
                '200' => [
                    'description' => 'The file',
                    'content' => [
                        'application/octet-stream' => ['schema' => ['type' => 'string', 'format' => 'binary']],
                    ],
                ],
            ],
            default => [
                '200' => [
                    'description' => 'As asked',
                    'content' => ['application/json' => ['schema' => $this->ref($answers->with)]],
                ],
            ],
        };

        if (isset($operation['requestBody']) && !self::hasFile($takes)) {
            $operation['responses']['413'] = [
                'description' => 'A body of more than ' . number_format(self::most($route)) . ' bytes',
            ];
        }

        return $operation;
    }

    /** Bytes that a body may have. */
    private static function most(Route $route): int
    {
        foreach ($route->gatherMiddleware() as $middleware) {
            if (is_string($middleware) && str_starts_with($middleware, 'body:')) {
                return (int) substr($middleware, 5);
            }
        }

        return BodySize::MOST;
    }

    /**
     * @param  list<WishPart>  $parts
     * @return array<string, mixed>
     */
    private static function body(array $parts): array
    {
        $properties = $required = [];
        foreach ($parts as $part) {
            $properties[$part->name] = $part->schema();
            if ($part->required) {
                $required[] = $part->name;
            }
        }

        return array_filter(
            ['type' => 'object', 'properties' => $properties, 'required' => $required],
            fn(mixed $v): bool => $v !== [],
        );
    }

    /** @param  list<WishPart>  $parts */
    private static function hasFile(array $parts): bool
    {
        foreach ($parts as $part) {
            $schema = $part->schema();
            if (in_array('binary', [$schema['format'] ?? '', $schema['items']['format'] ?? ''], true)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  class-string  $class
     * @return array<string, mixed>
     */
    private function ref(string $class): array
    {
        $short = (new ReflectionClass($class))->getShortName();
        if (!isset($this->schemas[$short])) {
            $this->schemas[$short] = [];
            $this->schemas[$short] = $this->schema($class);
        }

        return ['$ref' => "#/components/schemas/$short"];
    }

    /**
     * @param  class-string  $class
     * @return array<string, mixed>
     */
    private function schema(string $class): array
    {
        if (enum_exists($class)) {
            return [
                'type' => 'string',
                'enum' => array_map(
                    fn($case): string => (string) ($case->getValue() instanceof BackedEnum
                        ? $case->getValue()->value
                        : ''),
                    (new ReflectionEnum($class))->getCases(),
                ),
            ];
        }
        $reflection = new ReflectionClass($class);
        $doc = (string) $reflection->getConstructor()?->getDocComment();
        $properties = [];
        foreach ($reflection->getProperties(ReflectionProperty::IS_PUBLIC) as $property) {
            $properties[$property->getName()] = $this->property($property, $doc);
        }

        return ['type' => 'object', 'properties' => $properties, 'required' => array_keys($properties)];
    }

    /** @return array<string, mixed> */
    private function property(ReflectionProperty $property, string $doc): array
    {
        $type = $property->getType();
        if (!($type instanceof ReflectionNamedType)) {
            throw new RuntimeException("{$property->class}::\${$property->getName()} needs one type.");
        }
        if ($type->getName() === 'array') {
            if (preg_match('/@param\s+(\S.*?)\s+\$' . $property->getName() . '\b/', $doc, $m) !== 1) {
                throw new RuntimeException(
                    "{$property->class}::\${$property->getName()} needs a @param that says what the array holds.",
                );
            }
            $schema = $this->documented($m[1], new ReflectionClass($property->class));
        } else {
            $schema = $this->named($type->getName());
        }

        return $type->allowsNull() ? ['anyOf' => [$schema, ['type' => 'null']]] : $schema;
    }

    /**
     * @param  ReflectionClass<object>  $in
     * @return array<string, mixed>
     */
    private function documented(string $type, ReflectionClass $in): array
    {
        $type = preg_replace('/\|null$/', '', $type) ?? $type;
        if (preg_match('/^(?:non-empty-)?list<(.+)>$/', $type, $m) === 1) {
            return ['type' => 'array', 'items' => $this->documented($m[1], $in)];
        }
        if (preg_match('/^array<(?:string|int), (.+)>$/', $type, $m) === 1) {
            return ['type' => 'object', 'additionalProperties' => $this->documented($m[1], $in)];
        }
        if (in_array($type, ['string', 'int', 'float', 'bool'], true)) {
            return $this->named($type);
        }
        $candidates = [$in->getNamespaceName() . '\\' . $type];
        preg_match_all('/^use ([\w\\\\]+);$/m', (string) file_get_contents((string) $in->getFileName()), $uses);
        foreach ($uses[1] as $use) {
            if (str_ends_with($use, '\\' . $type)) {
                array_unshift($candidates, $use);
            }
        }
        foreach ($candidates as $candidate) {
            if (class_exists($candidate) || enum_exists($candidate)) {
                return $this->ref($candidate);
            }
        }
        throw new RuntimeException("{$in->getName()}: what is $type?");
    }

    /** @return array<string, mixed> */
    private function named(string $type): array
    {
        return match ($type) {
            'string' => ['type' => 'string'],
            'int' => ['type' => 'integer'],
            'float' => ['type' => 'number'],
            'bool' => ['type' => 'boolean'],
            default => class_exists($type) || enum_exists($type)
                ? $this->ref($type)
                : throw new RuntimeException("What is $type?"),
        };
    }
}
