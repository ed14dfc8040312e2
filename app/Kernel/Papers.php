<?php

namespace App\Kernel;

use Illuminate\Support\Facades\DB;
use RuntimeException;

/**
 * Long texts that many rows share word for word (the bench part of a frozen specification, a test program), each kept
 * once under the SHA-256 of its text. A row names those it shares in `papers`; nothing may alter or delete one.
 */
final class Papers
{
    private const NAME = 'papers';

    /** Papers a process remembers: a list of builds opens few. */
    private const REMEMBERED = 8;

    /** @var array<string, array<string, mixed>> */
    private static array $read = [];

    /**
     * @param  array<string, mixed>  $body
     * @param  list<list<string>>  $groups  keys of it others may share, by what is shared together
     * @return array<string, mixed> the rest, with the names of the papers
     */
    public static function parted(array $body, array $groups): array
    {
        $names = [];
        foreach ($groups as $keys) {
            $shared = array_intersect_key($body, array_flip($keys));
            if ($shared !== []) {
                $body = array_diff_key($body, $shared);
                $names[] = self::keep($shared);
            }
        }

        return $names === [] ? $body : $body + [self::NAME => $names];
    }

    /** @param  array<string, mixed>  $shared */
    private static function keep(array $shared): string
    {
        ksort($shared);
        $text = json_encode($shared, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
        $sha = hash('sha256', $text);
        $papers = DB::table('papers');
        $papers->clone()->where('sha256', $sha)->exists()
            || $papers->insertOrIgnore(['sha256' => $sha, 'body' => $text]);

        return $sha;
    }

    /**
     * @param  array<string, mixed>  $body  as a row has it
     * @return array<string, mixed> with what it shares
     */
    public static function whole(array $body): array
    {
        $names = $body[self::NAME] ?? [];
        foreach (is_array($names) ? $names : [] as $name) {
            $body += self::read($name);
        }

        return array_diff_key($body, [self::NAME => '']);
    }

    /** @return list<string> the papers a column of a row names */
    public static function namedIn(mixed $value): array
    {
        $body = is_string($value) && str_contains($value, '"'.self::NAME.'"') ? json_decode($value, true) : null;
        $names = is_array($body) ? $body[self::NAME] ?? [] : [];

        return is_array($names) ? array_values(array_filter($names, is_string(...))) : [];
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
