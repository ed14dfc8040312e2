<?php

namespace App\Shop\Health;

/** One thing the shop needs to work, as it stands now. */
final readonly class Vital implements \JsonSerializable
{
    private function __construct(
        public string $name,
        public string $state,
        public string $says,
        public string $mend,
    ) {
    }

    public static function good(string $name, string $says): self
    {
        return new self($name, 'good', $says, '');
    }

    /** Work goes on; somebody should look. */
    public static function weak(string $name, string $says, string $mend): self
    {
        return new self($name, 'weak', $says, $mend);
    }

    public static function bad(string $name, string $says, string $mend): self
    {
        return new self($name, 'bad', $says, $mend);
    }

    /** @return array<string, string> */
    public function jsonSerialize(): array
    {
        return get_object_vars($this);
    }
}
