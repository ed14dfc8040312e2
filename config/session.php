<?php

return [
    'driver' => env('SESSION_DRIVER', 'file'),
    'lifetime' => 720, // one long shift
    'expire_on_close' => false,
    'encrypt' => false,
    'files' => storage_path('framework/sessions'),
    'lottery' => [1, 200],
    'cookie' => 'yard_session',
    'path' => '/',
    'domain' => null,
    'secure' => null, // over HTTPS the cookie is for HTTPS only; loopback has none
    'http_only' => true,
    'same_site' => 'strict',
    'partitioned' => false,
];
