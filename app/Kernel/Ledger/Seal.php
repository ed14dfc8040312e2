<?php

namespace App\Kernel\Ledger;

/**
 * The account of the chain heads that the web workers cannot rewrite: a process of its own user takes what they wrote
 * down, lets no head be replaced or set back, and signs each line with a key only it can read (HMAC-SHA-256 over the
 * signature before and the line). Uses nothing the web user can write, and nothing of the framework.
 */
final class Seal
{
    /** From this size on only the last head of each stream is kept, bytes. */
    private const LARGE = 16_000_000;

    private const NO_ANCHOR = ['stream' => '', 'seq' => 0, 'hash' => ''];

    private readonly string $file;

    /** @var array<string, array{seq: int, hash: string}> */
    private array $heads = [];

    private string $mac = '';

    private int $size = 0;

    public function __construct(
        private readonly string $inbox,
        string $folder,
        private readonly string $key,
        private readonly int $large = self::LARGE,
    ) {
        $this->file = "$folder/heads.jsonl";
        foreach (self::lines($this->file) as $line) {
            $this->know($line['anchor'], $line['mac']);
        }
        $this->size = (int) @filesize($this->file);
    }

    /** The key of a folder only its owner reads; made when there is none. */
    public static function keyOf(string $folder): string
    {
        @mkdir($folder, 0755, true);
        if (! is_file("$folder/key")) {
            $before = umask(0077);
            file_put_contents("$folder/key", bin2hex(random_bytes(32)));
            umask($before);
        }

        return (string) file_get_contents("$folder/key");
    }

    /** Takes what was written down since; returns how many lines. */
    public function take(): int
    {
        clearstatcache(true, $this->inbox);
        if ((int) @filesize($this->inbox) === 0 || ($inbox = @fopen($this->inbox, 'r+')) === false) {
            return 0;
        }
        flock($inbox, LOCK_EX);
        $signed = '';
        for ($taken = 0; ($line = fgets($inbox)) !== false; $taken++) {
            $signed .= $this->sealed(rtrim($line, "\n"));
        }
        $this->append($signed);
        ftruncate($inbox, 0); // only now: what was taken twice is known already
        flock($inbox, LOCK_UN);
        fclose($inbox);
        if ($this->size >= $this->large) {
            $this->compact();
        }

        return $taken;
    }

    /**
     * @return \Generator<int, array{anchor: string, mac: string}> line number => what was sealed and its signature;
     *     both empty where the line is no sealed line
     */
    public static function lines(string $file): \Generator
    {
        $in = @fopen($file, 'r');
        for ($n = 1; $in !== false && ($line = fgets($in)) !== false; $n++) {
            $read = json_decode($line, true);
            yield $n => isset($read['anchor'], $read['mac']) && is_string($read['anchor']) && is_string($read['mac'])
                ? ['anchor' => $read['anchor'], 'mac' => $read['mac']]
                : ['anchor' => '', 'mac' => ''];
        }
        $in === false || fclose($in);
    }

    /** @return list<int> lines whose signature is wrong */
    public static function broken(string $file, string $key): array
    {
        [$broken, $before] = [[], ''];
        foreach (self::lines($file) as $n => $line) {
            if (! hash_equals(self::sign($key, $before, $line['anchor']), $line['mac'])) {
                $broken[] = $n;
            }
            $before = $line['mac'];
        }

        return $broken;
    }

    private static function sign(string $key, string $before, string $anchor): string
    {
        return hash_hmac('sha256', "$before\n$anchor", $key);
    }

    /** What is known already is not written twice; what contradicts it, or is no anchor, is kept as evidence. */
    private function sealed(string $anchor): string
    {
        $anchor = mb_scrub($anchor, 'UTF-8');
        ['stream' => $stream, 'seq' => $seq, 'hash' => $hash] = Anchors::parse($anchor) ?? self::NO_ANCHOR;
        if (($this->heads[$stream] ?? null) === ['seq' => $seq, 'hash' => $hash]) {
            return '';
        }
        $mac = self::sign($this->key, $this->mac, $anchor);
        $this->know($anchor, $mac);
        $line = ['anchor' => $anchor, 'mac' => $mac];

        return json_encode($line, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE)."\n";
    }

    private function know(string $anchor, string $mac): void
    {
        $this->mac = $mac;
        $read = Anchors::parse($anchor);
        if ($read !== null && $read['seq'] > ($this->heads[$read['stream']]['seq'] ?? 0)) {
            $this->heads[$read['stream']] = ['seq' => $read['seq'], 'hash' => $read['hash']];
        }
    }

    private function append(string $signed): void
    {
        if ($signed === '') {
            return;
        }
        $out = fopen($this->file, 'a');
        if ($out === false || fwrite($out, $signed) !== strlen($signed) || ! fflush($out) || ! fsync($out)) {
            throw new \RuntimeException("The anchors could not be sealed in $this->file: the disk may be full.");
        }
        fclose($out);
        $this->size += strlen($signed);
    }

    /** Keeps the file from growing by a line an event for ever, unless it holds evidence. */
    private function compact(): void
    {
        $known = Anchors::told(self::lines($this->file));
        if ($known['malformed'] !== [] || $known['conflicts'] !== []) {
            return;
        }
        [$heads, $this->heads, $this->mac] = [$this->heads, [], ''];
        $lines = '';
        foreach ($heads as $stream => $head) {
            $lines .= $this->sealed(rtrim(Anchors::line((string) $stream, $head['seq'], $head['hash']), "\n"));
        }
        file_put_contents("$this->file.new", $lines);
        rename("$this->file.new", $this->file);
        $this->size = strlen($lines);
    }
}
