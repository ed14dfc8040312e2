<?php

namespace App\Kernel;

use Illuminate\Support\Facades\DB;
use RuntimeException;

/**
 * Long texts that many rows share word for word (the bench part of a frozen specification, a test program), each kept
 * once under the SHA-256 of its text. A row names it as `paper`; nothing may alter or delete one.
 */
final class Papers
{
    private const NAME = 'paper';

    /** Papers a process remembers: a list of builds opens few. */
    private const REMEMBERED = 8;

    /** @var array<string, array<string, mixed>> */
    private static array $read = [];

    /**
     * @param  array<string, mixed>  $body
     * @param  list<string>  $keys  what of it others may share
     * @return array<string, mixed> the rest, with the name of the paper
     */
    public static function parted(array $body, array $keys): array
    {
        $shared = array_intersect_key($body, array_flip($keys));
        if ($shared === []) {
            return $body;
        }
        ksort($shared);
        $text = json_encode($shared, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
        $sha = hash('sha256', $text);
        $papers = DB::table('papers');
        $papers->clone()->where('sha256', $sha)->exists()
            || $papers->insertOrIgnore(['sha256' => $sha, 'body' => $text]);

        return array_diff_key($body, $shared) + [self::NAME => $sha];
    }

    /**
     * @param  array<string, mixed>  $body  as a row has it
     * @return array<string, mixed> with what it shares
     */
    public static function whole(array $body): array
    {
        $sha = $body[self::NAME] ?? null;

        return is_string($sha) ? array_diff_key($body, [self::NAME => '']) + self::read($sha) : $body;
    }

    /** The paper a column of a row names; null: none. */
    public static function namedIn(mixed $value): ?string
    {
        $name = is_string($value) && str_contains($value, '"'.self::NAME.'"') ? json_decode($value, true) : null;

        return is_array($name) && is_string($name[self::NAME] ?? null) ? $name[self::NAME] : null;
    }

    /** The SHA-256 of the text that stands under it; null: there is none. */
    public static function fingerprint(string $sha): ?string
    {
        $text = DB::table('papers')->where('sha256', $sha)->value('body');

        return $text === null ? null : hash('sha256', (string) $text);
    }

    /** @return array<string, mixed> */
    private static function read(string $sha): array
    {
        if (! isset(self::$read[$sha])) {
            $text = DB::table('papers')->where('sha256', $sha)->value('body')
                ?? throw new RuntimeException("The paper $sha, which a row shares with others, is gone.");
            $body = json_decode((string) $text, true, 512, JSON_THROW_ON_ERROR);
            self::$read = array_slice(self::$read, 1 - self::REMEMBERED, null, true) + [$sha => $body];
        }

        return self::$read[$sha];
    }
}
