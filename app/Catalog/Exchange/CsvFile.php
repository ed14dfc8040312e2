<?php

namespace App\Catalog\Exchange;

/** Reads a CSV file line by line (RFC 4180, comma or semicolon, UTF-8 with or without mark) as rows by column name. */
final class CsvFile
{
    /** @var resource */
    private $handle;

    private string $separator;

    /** @var list<string> */
    private array $header;

    /**
     * @param  list<string>  $required
     * @param  list<string>  $optional
     *
     * @throws CsvRefusal when the header does not fit
     */
    public function __construct(string $path, array $required, array $optional)
    {
        $this->handle = fopen($path, 'r') ?: throw new CsvRefusal('The file cannot be read.');
        $first = (string) fgets($this->handle);
        $first = str_starts_with($first, "\xEF\xBB\xBF") ? substr($first, 3) : $first;
        if (trim($first) === '') {
            throw new CsvRefusal('The file is empty: the first line must name the columns.');
        }
        $this->separator = substr_count($first, ';') > substr_count($first, ',') ? ';' : ',';
        $this->header = array_map(
            fn (?string $h) => strtolower(trim((string) $h)),
            str_getcsv(rtrim($first, "\r\n"), $this->separator, '"', ''),
        );
        foreach (
            [
                ['is missing', array_diff($required, $this->header)],
                ['is not known here', array_diff($this->header, $required, $optional)],
                ['stands twice', array_diff_key($this->header, array_unique($this->header))],
            ] as [$what, $columns]
        ) {
            if ($columns !== []) {
                throw new CsvRefusal(
                    'The column "'.
                        reset($columns).
                        "\" $what; the columns are ".
                        implode(', ', $required).
                        ($optional === [] ? '' : ', and if wanted '.implode(', ', $optional)).
                        '.',
                );
            }
        }
    }

    public function __destruct()
    {
        if (is_resource($this->handle)) {
            fclose($this->handle);
        }
    }

    /** @return \Generator<int, array<string, string>|CsvRefusal> line number => row, or what is wrong with the line */
    public function rows(): \Generator
    {
        $line = 1;
        while (($fields = fgetcsv($this->handle, null, $this->separator, '"', '')) !== false) {
            $line++;
            if ($fields === [null]) {
                continue; // an empty line
            }
            $text = implode('', array_map(strval(...), $fields));
            if (! mb_check_encoding($text, 'UTF-8')) {
                yield $line => new CsvRefusal('This line is not written in UTF-8.');
            } elseif (count($fields) !== count($this->header)) {
                yield $line => new CsvRefusal(
                    'This line has '.count($fields).' fields, the header has '.count($this->header).'.',
                );
            } else {
                yield $line => array_map(fn (?string $f) => trim((string) $f), array_combine($this->header, $fields));
            }
        }
    }
}
