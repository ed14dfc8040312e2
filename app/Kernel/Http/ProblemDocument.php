<?php

namespace App\Kernel\Http;

use App\Kernel\Refusal;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\DeadlockException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\QueryException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Yard\Core\BadInput;

/** Every error of the API as a problem document (RFC 9457), with one sentence and the JSON pointer of the field. */
final class ProblemDocument
{
    private const FAULT = [
        500,
        'Fault of the program',
        'Something went wrong in the program; nothing was stored. It has been noted in the log.',
        [],
    ];

    private const BUSY = [
        503,
        'Busy',
        'Too many are writing the same record; nothing was stored, try again in a moment.',
        [],
    ];

    private const FULL = [
        507,
        'Disk full',
        'The disk of the server is full, so nothing was stored; what you typed is still here. Ask the manager to make '
            .'room.',
        [],
    ];

    private const FIXED = [
        DeadlockException::class => self::BUSY,
        AuthenticationException::class => [401, 'Not signed in', 'Scan or type your badge first.', []],
        AuthorizationException::class => [
            403,
            'Not allowed',
            'Your badge does not allow this. Ask the shop manager.',
            [],
        ],
        ModelNotFoundException::class => [404, 'Not found', 'There is nothing under this number.', []],
        TokenMismatchException::class => [
            419,
            'Session ended',
            'The session has ended; sign in again. What you typed stays on the screen.',
            [],
        ],
    ];

    public static function from(\Throwable $e, Request $request): JsonResponse
    {
        [$status, $title, $detail, $more] = self::said(self::cause($e));

        return response()->json(
            ['type' => 'about:blank', 'title' => $title, 'status' => $status, 'detail' => $detail] + $more,
            $status,
            ['Content-Type' => 'application/problem+json'],
            JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        );
    }

    /** The framework wraps some of its own errors in one of HTTP. */
    private static function cause(\Throwable $e): \Throwable
    {
        $wrapped = $e instanceof HttpExceptionInterface ? $e->getPrevious() : null;

        return match (true) {
            $wrapped instanceof ModelNotFoundException,
            $wrapped instanceof TokenMismatchException,
            $wrapped instanceof AuthorizationException => $wrapped,
            default => $e,
        };
    }

    /** @return array{int, string, string, array<string, mixed>} status, title, sentence, what else the document says */
    private static function said(\Throwable $e): array
    {
        return match (true) {
            self::outOfRoom($e) => self::FULL,
            $e instanceof Refusal => [
                $e->status,
                self::title($e),
                $e->getMessage(),
                ['errors' => $e->errors] + $e->more,
            ],
            $e instanceof BadInput => [
                422,
                'Not accepted',
                $e->getMessage(),
                ['code' => $e->errorCode, 'errors' => [['pointer' => $e->path, 'detail' => $e->getMessage()]]],
            ],
            $e instanceof ValidationException => [
                422,
                'Not accepted',
                array_values($e->errors())[0][0] ?? 'Please check the fields.',
                ['errors' => self::fields($e)],
            ],
            $e instanceof QueryException => self::database($e),
            $e instanceof HttpExceptionInterface => [$e->getStatusCode(), 'Not possible', self::http($e), []],
            default => self::FIXED[$e::class] ?? self::FAULT,
        };
    }

    /** Sessions, logs and pictures are files: the system says so in words. */
    private static function outOfRoom(?\Throwable $e): bool
    {
        for (; $e !== null; $e = $e->getPrevious()) {
            if (preg_match('/No space left on device|errno[= ]28\b/', $e->getMessage()) === 1) {
                return true;
            }
        }

        return false;
    }

    private static function title(Refusal $e): string
    {
        return match (true) {
            isset($e->more['current']) => 'Changed meanwhile',
            $e->status === 409 => 'Not possible now',
            default => 'Not accepted',
        };
    }

    private static function http(HttpExceptionInterface $e): string
    {
        return match ($e->getStatusCode()) {
            404 => 'There is nothing at this address.',
            405 => 'This address does not take such a request.',
            413 => 'The file is larger than 24 MB.',
            default => $e->getMessage() ?: 'The request was refused.',
        };
    }

    /** @return list<array{pointer: string, detail: string}> */
    private static function fields(ValidationException $e): array
    {
        $out = [];
        foreach ($e->errors() as $field => $messages) {
            $out[] = ['pointer' => '/'.str_replace('.', '/', $field), 'detail' => $messages[0]];
        }

        return $out;
    }

    /** @return array{int, string, string, array<string, mixed>} */
    private static function database(QueryException $e): array
    {
        return match ($e->errorInfo[1] ?? 0) {
            1062 => [409, 'Already there', 'There is already a record with this number.', []],
            1264, 1406, 1366, 4025 => [
                422,
                'Not accepted',
                'A value is outside what can be stored; check the numbers.',
                [],
            ],
            1205, 1213 => self::BUSY,
            // No connection, too many of them, shutting down, lost or killed while asking.
            1040, 1053, 1158, 1159, 1160, 1161, 1927, 2002, 2006, 2013, 2055 => [
                503,
                'Database away',
                'The database does not answer; what you typed is still here, try again in a moment.',
                [],
            ],
            // Error writing a file, disk full, table full, error writing a row.
            3, 1021, 1026, 1114, 1878 => self::FULL,
            default => self::FAULT,
        };
    }
}
