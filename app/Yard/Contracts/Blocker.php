<?php

namespace App\Yard\Contracts;

use App\Yard\Gate;

/** One reason why a unit may not go through a gate: which gate it bars, in a sentence, and where to see to it. */
final readonly class Blocker implements \JsonSerializable
{
    /**
     * @param  string  $code kind of reason and what it concerns, such as "reading:pack:C1"; stable, for tests and links
     * @param  string  $sentence  whole sentence with its full stop
     * @param  string  $link  address in the interface where it can be seen to
     */
    public function __construct(
        public Gate $gate,
        public string $code,
        public string $sentence,
        public string $link,
    ) {
    }

    /** @return array{gate: string, code: string, sentence: string, link: string} */
    public function jsonSerialize(): array
    {
        return [
            'gate' => $this->gate->value,
            'code' => $this->code,
            'sentence' => $this->sentence,
            'link' => $this->link,
        ];
    }
}
