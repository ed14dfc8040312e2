<?php

namespace App\Stations\Dyno\Http;

use App\Kernel\Refusal;
use App\Shop\Http\SignedRequest;
use Illuminate\Http\UploadedFile;

final class RecordingRequest extends SignedRequest
{
    protected function prepareForValidation(): void
    {
        $as = json_decode((string) $this->input('as'), true);
        $this->merge(['as' => is_array($as) ? $as : null]);
        parent::prepareForValidation();
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'file' => 'required|file',
            'as' => 'required|array',
            'as.time' => 'nullable|array:column,unit',
            'as.time.column' => 'required_with:as.time|string|max:200',
            'as.time.unit' => 'required_with:as.time|string|max:20',
            'as.rate_hz' => 'nullable|numeric|gt:0|max:100000',
            'as.channels' => 'required|array|max:12',
            'as.channels.*' => 'array:column,unit',
            'as.channels.*.column' => 'required|string|max:200',
            'as.channels.*.unit' => 'required|string|max:20',
        ];
    }

    public function recording(): UploadedFile
    {
        $file = $this->file('file');

        return $file instanceof UploadedFile ? $file : throw Refusal::at('/file', 'Choose the file of the recording.');
    }

    /** @return array{time: array<string, string>|null, channels: array<string, array<string, string>>,
     *     rate_hz: float|null}
     */
    public function columns(): array
    {
        $as = $this->validated('as');

        return [
            'time' => $as['time'] ?? null,
            'channels' => $as['channels'],
            'rate_hz' => isset($as['rate_hz']) ? (float) $as['rate_hz'] : null,
        ];
    }
}
