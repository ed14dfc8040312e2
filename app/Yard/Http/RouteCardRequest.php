<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;
use App\Yard\StationName;
use Closure;

final class RouteCardRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['sections' => ['nullable', 'string', 'max:120', $this->known(...)]];
    }

    /** @return list<string> the sections asked for, none: the summary */
    public function sections(): array
    {
        return array_values(array_filter(explode(',', $this->validated('sections') ?? '')));
    }

    private function known(string $field, string $typed, Closure $fail): void
    {
        foreach (array_filter(explode(',', $typed)) as $name) {
            if (! in_array(StationName::tryFrom($name), StationName::inHouse(), true)) {
                $fail("The route card has no section \"$name\".");

                return;
            }
        }
    }
}
