<?php

// The same PSR-4 map as composer.json, without Composer's start-up cost: core/bin/calc must start in milliseconds.
spl_autoload_register(static function (string $class): void {
    if (str_starts_with($class, 'Yard\\Core\\')) {
        $file = __DIR__.'/src/'.strtr(substr($class, 10), '\\', '/').'.php';
        if (is_file($file)) {
            require $file;
        }
    }
});
