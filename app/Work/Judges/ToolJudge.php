<?php

namespace App\Work\Judges;

use App\Catalog\Models\Vocabulary;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Shop\Models\SpecialTool;
use App\Work\Answer;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** The special tool is in hand before the operation begins; without it only by name, with a reason. */
final class ToolJudge extends KeepsProofs
{
    /** @var array<string, \stdClass>|null kinds of tools by code */
    private ?array $kinds = null;

    protected function missing(ProofSpec $proof): string
    {
        $kind = $this->kind($proof->of);

        return "Scan the {$kind['name']}. {$kind['without']}";
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        if (($answer->body['without'] ?? false) === true) {
            if (trim($answer->note) === '') {
                throw Refusal::at('/note', "Say why it is done without. {$this->kind($proof->of)['without']}");
            }
            $this->keep($work, $proof, $answer, $by, ['without' => true]);

            return;
        }
        $tool = $this->tool(mb_strtoupper($answer->string('code')), $proof->of);
        $this->keep($work, $proof, $answer, $by, ['code' => $tool->tag, 'name' => $tool->name]);
    }

    /** @throws Refusal where there is no such tool, it is another kind, or nobody has looked at it in time */
    private function tool(string $tag, string $kind): SpecialTool
    {
        $wanted = $this->kind($kind)['name'];
        $tool = $tag === '' ? null : SpecialTool::query()->where('tag', $tag)->first();
        $against = match (true) {
            $tag === '' => "Scan the $wanted, or say that it is done without.",
            $tool === null => "There is no tool \"$tag\" in the register.",
            $tool->kind !== $kind => "\"$tool->name\" is not a $wanted.",
            $tool->isOverdue() => "\"$tool->name\" was to be looked at by $tool->inspected_until; take another.",
            default => null,
        };

        return $tool !== null && $against === null ? $tool : throw Refusal::at('/answer/code', (string) $against);
    }

    /** @return array{name: string, without: string} */
    private function kind(string $code): array
    {
        $this->kinds ??= array_column(
            Vocabulary::query()->where('code', 'special-tools')->first()->body->kinds ?? [],
            null,
            'code',
        );
        $kind = $this->kinds[$code] ?? null;

        return ['name' => $kind->name ?? $code, 'without' => $kind->without ?? ''];
    }
}
