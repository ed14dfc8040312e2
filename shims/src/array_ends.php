<?php

// array_first() and array_last() arrive in PHP 8.5; the framework already calls them.

if (! function_exists('array_first')) {
    /** @param  array<mixed>  $array */
    function array_first(array $array): mixed
    {
        return $array === [] ? null : $array[array_key_first($array)];
    }
}

if (! function_exists('array_last')) {
    /** @param  array<mixed>  $array */
    function array_last(array $array): mixed
    {
        return $array === [] ? null : $array[array_key_last($array)];
    }
}
