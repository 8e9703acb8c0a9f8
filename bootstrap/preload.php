<?php

declare(strict_types=1);

/*
 * For opcache.preload of php-fpm (docs/operations.md): what nearly every request uses is compiled and linked once, when
 * the server starts, instead of being looked up and linked with each request. Restart php-fpm after an update.
 */

// prettier-ignore
$folders = [
    'App\\', 'Vantrel\\Core\\', 'Carbon\\', 'Illuminate\\Auth\\', 'Illuminate\\Cache\\', 'Illuminate\\Config\\',
    'Illuminate\\Container\\', 'Illuminate\\Contracts\\', 'Illuminate\\Cookie\\', 'Illuminate\\Database\\',
    'Illuminate\\Encryption\\', 'Illuminate\\Events\\', 'Illuminate\\Foundation\\', 'Illuminate\\Hashing\\',
    'Illuminate\\Http\\', 'Illuminate\\Log\\', 'Illuminate\\Pipeline\\', 'Illuminate\\Queue\\', 'Illuminate\\Bus\\',
    'Illuminate\\Broadcasting\\', 'Illuminate\\Filesystem\\', 'Illuminate\\Routing\\', 'Illuminate\\Session\\',
    'Illuminate\\Support\\', 'Illuminate\\Translation\\', 'Illuminate\\Validation\\', 'Illuminate\\View\\', 'Psr\\',
    'Symfony\\Contracts\\', 'Symfony\\Component\\EventDispatcher\\', 'Symfony\\Component\\Clock\\',
    'Symfony\\Component\\HttpFoundation\\', 'Symfony\\Component\\HttpKernel\\', 'Symfony\\Component\\Routing\\',
    'Symfony\\Component\\Uid\\',
];
// Commands, tests and what needs packages that are not here stay as they are.
$never =
    '/\\\\(Console|Doctrine|PHPStan|DataCollector|DependencyInjection|' .
    'Test|Cloud|Commands|Testing|Factories|Fakes)\\\\|' .
    'Testing|Dynamo|Redis|Memcached|Sqs|Beanstalkd|Postgres|SqlServer|SQLite/';
/** @var array<string, string> $classes */
$classes = require __DIR__ . '/../vendor/composer/autoload_classmap.php';
foreach ($classes as $class => $file) {
    foreach ($folders as $folder) {
        if (str_starts_with($class, $folder) && preg_match($never, $class) !== 1 && is_file($file)) {
            opcache_compile_file($file);
            break;
        }
    }
}
