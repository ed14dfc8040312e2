<?php

namespace App\Kernel\Http;

use App\Kernel\Refusal;
use Closure;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\Response as AnyResponse;

/**
 * Every write is one transaction: it happens whole or not at all. A POST carries an Idempotency-Key; sent again with
 * the same key (a tablet that lost its connection) it returns the first answer and does nothing twice.
 */
final class IdempotentWrite
{
    public function handle(Request $request, Closure $next): AnyResponse
    {
        if ($request->isMethodSafe()) {
            return $next($request);
        }
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
        DB::beginTransaction();
        if ($key !== '') {
            try {
                DB::table('idempotency_keys')->insert([
                    'person_id' => self::author(),
                    'key' => $key,
                    'fingerprint' => $this->fingerprint($request),
                    'created_at' => now(),
                ]);
            } catch (UniqueConstraintViolationException) {
                DB::rollBack();

                return $this->replay($request, $key);
            } catch (\Throwable $e) {
                DB::rollBack();
                throw $e;
            }
        }
        try {
            $response = $next($request);
            if ($response->getStatusCode() >= 400) {
                DB::rollBack();

                return $response;
            }
            if ($key !== '') {
                DB::table('idempotency_keys')
                    ->where('person_id', self::author())
                    ->where('key', $key)
                    ->update(['status' => $response->getStatusCode(), 'body' => (string) $response->getContent()]);
            }
            DB::commit();
            if (random_int(1, 500) === 1) {
                DB::table('idempotency_keys')->where('created_at', '<', now()->subDays(7))->limit(5000)->delete();
            }

            return $response;
        } catch (\Throwable $e) {
            DB::rollBack();
            throw $e;
        }
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

        return new Response($row->body, $row->status, [
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
