<?php

return [
    'defaults' => ['guard' => 'badge', 'passwords' => null],
    'guards' => ['badge' => ['driver' => 'session', 'provider' => 'people']],
    'providers' => ['people' => ['driver' => 'open-sessions', 'model' => App\Shop\Models\Person::class]],
];
