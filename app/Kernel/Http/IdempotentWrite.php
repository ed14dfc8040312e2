<?php

namespace App\Kernel\Http;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use Closure;
use Illuminate\Database\DeadlockException;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\QueryException;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\Response as AnyResponse;

/**
 * Every write is one transaction: it happens whole or not at all. A POST carries an Idempotency-Key; sent again with
 * the same key (a tablet that lost its connection) it returns the first answer and does nothing twice. Writes on the
 * same subject come one after the other; what two writers made the database break off is tried again.
 */
final class IdempotentWrite
{
    /** A writer that gave way to another one tries again so often. */
    private const ATTEMPTS = 4;

    /** What the database says when two writers wait for each other: lock wait over, deadlock. */
    private const GAVE_WAY = [1205, 1213];

    /** No JSON begins like that. */
    private const PACKED = 'gz:';

    /** Shorter answers are kept as they are, bytes. */
    private const LONG = 2000;

    public function __construct(private readonly Serialiser $serialiser, private readonly Ledger $ledger)
    {
    }

    public function handle(Request $request, Closure $next): AnyResponse
    {
        if ($request->isMethodSafe()) {
            return $next($request);
        }
        $key = self::key($request);
        $subject = $this->serialiser->subjectOf($request);
        for ($attempt = 1; ; $attempt++) {
            try {
                $response = $this->once($request, $next, $key, $subject);
                if ($attempt === self::ATTEMPTS || ! self::gaveWay($response->exception ?? null)) {
                    return $response;
                }
            } catch (\Throwable $e) {
                if ($attempt === self::ATTEMPTS || ! self::gaveWay($e)) {
                    throw $e;
                }
            }
            usleep($attempt * random_int(5_000, 30_000));
        }
    }

    private static function key(Request $request): string
    {
        $key = (string) $request->header('Idempotency-Key', '');
        if ($key === '' && $request->isMethod('POST')) {
            throw new Refusal(
                'The request needs an Idempotency-Key header, so that sending it twice does nothing twice.',
                400,
            );
        }
        if (strlen($key) > 100) {
            throw new Refusal('The Idempotency-Key header may have 100 characters.', 400);
        }

        return $key;
    }

    private function once(Request $request, Closure $next, string $key, ?int $subject): AnyResponse
    {
        DB::beginTransaction();
        if ($key !== '' && ! $this->claim($request, $key)) {
            DB::rollBack();

            return $this->replay($request, $key);
        }
        try {
            if ($subject !== null) {
                $this->serialiser->lock($subject);
                self::readAnew($request);
            }
            $response = $this->ledger->within(function () use ($next, $request): AnyResponse {
                $response = $next($request);
                $response->getStatusCode() < 400 || $this->ledger->forget();

                return $response;
            });
            if ($response->getStatusCode() >= 400) {
                DB::rollBack();

                return $response;
            }
            $this->keep($response, $key);
            DB::commit();

            return $response;
        } catch (\Throwable $e) {
            DB::rollBack();
            throw $e;
        }
    }

    /** Whether the key is new; one that is being used by another request waits for its end. */
    private function claim(Request $request, string $key): bool
    {
        try {
            return DB::table('idempotency_keys')->insert([
                'person_id' => self::author(),
                'key' => $key,
                'fingerprint' => $this->fingerprint($request),
                'created_at' => now(),
            ]);
        } catch (UniqueConstraintViolationException) {
            return false;
        } catch (\Throwable $e) {
            DB::rollBack();
            throw $e;
        }
    }

    /** What the address names was read before the lock; another writer may have changed it since. */
    private static function readAnew(Request $request): void
    {
        foreach ($request->route()?->parameters() ?? [] as $value) {
            $value instanceof Model && $value->refresh();
        }
    }

    private function keep(AnyResponse $response, string $key): void
    {
        if ($key === '') {
            return;
        }
        $body = self::packed((string) $response->getContent());
        DB::table('idempotency_keys')
            ->where('person_id', self::author())
            ->where('key', $key)
            ->update(['status' => $response->getStatusCode(), 'body' => $body]);
        if (random_int(1, 500) === 1) {
            DB::table('idempotency_keys')->where('created_at', '<', now()->subDays(7))->limit(5000)->delete();
        }
    }

    /** A route card is a hundred kilobytes of text and is hardly ever asked for again. */
    private static function packed(string $body): string
    {
        return strlen($body) < self::LONG ? $body : self::PACKED.base64_encode((string) gzcompress($body, 1));
    }

    private static function unpacked(string $kept): string
    {
        return str_starts_with($kept, self::PACKED)
            ? (string) gzuncompress((string) base64_decode(substr($kept, strlen(self::PACKED)), true))
            : $kept;
    }

    private static function gaveWay(?\Throwable $e): bool
    {
        return $e instanceof DeadlockException ||
            ($e instanceof QueryException && in_array($e->errorInfo[1] ?? 0, self::GAVE_WAY, true));
    }

    private function replay(Request $request, string $key): AnyResponse
    {
        $row = DB::table('idempotency_keys')
            ->where('person_id', self::author())
            ->where('key', $key)
            ->first();
        if ($row === null || $row->status === null) {
            throw new Refusal('The same request is being carried out at this moment; try again.', 409);
        }
        if ($row->fingerprint !== $this->fingerprint($request)) {
            throw new Refusal('This Idempotency-Key was already used for a different request.', 422);
        }

        return new Response(self::unpacked((string) $row->body), $row->status, [
            'Content-Type' => 'application/json',
            'Idempotent-Replay' => 'true',
        ]);
    }

    private function fingerprint(Request $request): string
    {
        $files = array_map(
            fn ($f) => is_array($f) ? '' : hash_file('sha256', $f->getRealPath() ?: '/dev/null'),
            $request->allFiles(),
        );

        return hash(
            'sha256',
            $request->method().
                ' '.
                $request->path().
                ' '.
                json_encode($request->except(array_keys($files))).
                json_encode($files),
        );
    }

    /** Whose key it is; 0 for nobody. */
    private static function author(): int
    {
        $id = Auth::id();

        return is_int($id) ? $id : 0;
    }
}
