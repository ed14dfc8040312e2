<?php

namespace App\Shop\Http;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use Illuminate\Foundation\Http\FormRequest;

/** A request of somebody with a badge. Who may send it is said beside the route (can:ability). */
class SignedRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [];
    }

    /** JSON can write numbers no computer holds (1e400); they are refused like any other wrong answer. */
    protected function prepareForValidation(): void
    {
        $input = $this->all();
        array_walk_recursive($input, function (mixed $value, int|string $key): void {
            if (is_float($value) && ! is_finite($value)) {
                throw Refusal::at("/$key", "The field $key is too large to be a number here.");
            }
        });
    }

    public function person(): Person
    {
        $person = $this->user();

        return $person instanceof Person ? $person : throw new \LogicException('The route asks for no badge.');
    }
}
