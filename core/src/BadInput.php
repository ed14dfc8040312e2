<?php

declare(strict_types=1);

namespace Yard\Core;

/** Input a calculator refuses: a short code, one clear sentence, and the JSON pointer of the place. */
final class BadInput extends \InvalidArgumentException
{
    public function __construct(public readonly string $errorCode, string $message, public readonly string $path = '')
    {
        parent::__construct($message);
    }

    /** The same refusal seen from further out: the place lies below the given pointer. */
    public function under(string $path): self
    {
        return new self($this->errorCode, $this->getMessage(), $path.$this->path);
    }

    /** @return array{error: array{code: string, message: string, path: string}} */
    public function toArray(): array
    {
        return ['error' => ['code' => $this->errorCode, 'message' => $this->getMessage(), 'path' => $this->path]];
    }
}
