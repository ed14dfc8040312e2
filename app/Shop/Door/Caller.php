<?php

namespace App\Shop\Door;

use App\Shop\Models\Tablet;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cookie;
use Illuminate\Support\Str;

/** From where somebody knocks: an address, and the tablet if it is one of the shop's. */
final class Caller
{
    private const COOKIE = 'yard_tablet';

    private const YEARS_5 = 5 * 366 * 24 * 60;

    private function __construct(
        public readonly string $address,
        public readonly ?Tablet $tablet,
        private readonly ?string $cookie,
    ) {
    }

    public static function of(Request $request): self
    {
        $cookie = $request->cookie(self::COOKIE);
        $cookie = is_string($cookie) && preg_match('/^[A-Za-z0-9]{40}$/', $cookie) === 1 ? $cookie : null;

        return new self(
            $request->ip() ?? 'unknown',
            $cookie === null ? null : Tablet::query()->find(hash('sha256', $cookie)),
            $cookie,
        );
    }

    /** Somebody of the shop has signed in here: from now on the tablet is known. */
    public function becomesKnown(int $by): Tablet
    {
        if ($this->tablet !== null) {
            return $this->tablet;
        }
        $cookie = $this->cookie ?? Str::random(40);
        Cookie::queue(self::COOKIE, $cookie, self::YEARS_5);

        return Tablet::query()->firstOrCreate(
            ['id' => hash('sha256', $cookie)],
            ['name' => strtoupper(Str::random(6)), 'known_since' => now(), 'known_by' => $by],
        );
    }
}
