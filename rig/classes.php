<?php

declare(strict_types=1);

// The rig stands by itself: no autoloader of the application, no packages.
foreach (['Train', 'Friction', 'Holder', 'Built', 'Rig', 'Faults', 'Cell', 'Once'] as $class) {
    require_once __DIR__."/$class.php";
}
ini_set('serialize_precision', '-1');
