<!DOCTYPE html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <title>Teardown of {{ $unit->core_tag }}</title>
    @include('paper-style')
    <style>
        .faint { color: #555; } .bad { font-weight: bold; }
        .picture { display: inline-block; width: 56mm; margin: 0 2mm 3mm 0; vertical-align: top; }
        .picture img { width: 56mm; }
    </style>
</head>
<body>
<h1>Teardown report, {{ $unit->currentBuild?->serial ?? $unit->core_tag }}</h1>
<p class="faint">
    Core {{ $unit->core_tag }} · {{ $unit->family->name }} {{ $unit->variant?->code }} · {{ $unit->vehicle }} ·
    {{ now()->format('j F Y') }}{{ $hours < 0.05 ? '' : ' · '.number_format($hours, 1).' h at the bench' }}
</p>
@if ($unit->complaint !== '')
    <p>Complaint, as told: “{{ $unit->complaint }}”</p>
@endif

<h2>Cause</h2>
@forelse ($causes as $f)
    <p><strong>{{ $f['name'] }}: {{ $f['condition'] }}.</strong> {{ $f['burn'] }} {{ $f['note'] }}</p>
@empty
    <p>No cause was found. That is an honest result.</p>
@endforelse
@if ($collateral !== [])
    <p>Harmed by it: {{ implode(', ', array_map(fn ($f) => "{$f['name']} ({$f['condition']})", $collateral)) }}.</p>
@endif
@if ($leak !== null)
    <p>
        Leak: most likely {{ lcfirst($leak['name']) }} ({{ round(100 * $leak['posterior']) }} %).
        {{ $leak['renews'] }}.
    </p>
@endif

@if ($vehicle !== [])
    <h2>In the vehicle</h2>
    @foreach ($vehicle as $cause)
        <p><strong>{{ $cause['name'] }}.</strong> Before the warranty starts: {{ $cause['condition'] }}
            {{ $cause['settled'] === null ? '' : "Done: {$cause['settled']}" }}</p>
    @endforeach
@endif

<h2>What was looked at</h2>
<table>
    <tr><th>Part</th><th>Found</th><th>What becomes of it</th></tr>
    @foreach ($findings as $f)
        <tr>
            <td>{{ $f['name'] }} <span class="faint">{{ $f['number'] }}</span></td>
            <td @class(['bad' => ! $f['sound']])>
                {{ $f['condition'] }}
                @if ($f['plates'] !== []) <br>from the piston: {{ implode(', ', $f['plates']) }} @endif
                @if ($f['reading'] !== null)
                    <br>{{ $f['reading'] }}, window {{ $f['window'] }}{{ $f['inside'] ? '' : ': outside' }}
                    ({{ $f['gauge'] }})
                @endif
                @if ($f['note'] !== '') <br>{{ $f['note'] }} @endif
                @if ($f['pieces'] !== null) <br>{{ $f['pieces'] }} @endif
                @if ($f['ours']) <br>done by our own teardown @endif
            </td>
            <td>
                {{ $f['disposition'] }}{{ $f['route'] === null ? '' : ": {$f['route']}" }}<br>
                <span class="faint">{{ $f['by'] }}</span>
            </td>
        </tr>
    @endforeach
</table>

@if ($counts !== [])
    <h2>Counts that differ</h2>
    @foreach ($counts as $said) <p>{{ $said }}</p> @endforeach
@endif
@if ($repairs !== [])
    <h2>Repaired on this unit</h2>
    @foreach ($repairs as $r)
        <p>{{ $r['name'] }}, {{ $r['trouble'] }}: {{ $r['method'] }}. {{ $r['after'] }} {{ $r['note'] }}</p>
    @endforeach
@endif
@if ($photos->isNotEmpty())
    <h2>Pictures</h2>
    @foreach ($photos as $photo)
        @if ($src = $picture($photo->path))
            <div class="picture"><img src="{{ $src }}" alt="{{ $photo->place }}"><br>{{ $photo->place }}</div>
        @endif
    @endforeach
    @if ($leftOut > 0) <p>{{ $leftOut }} more pictures are on file.</p> @endif
@endif
<p class="faint">
    Findings are of the day of the teardown. The maker's procedure, local rules and licensed practice come first.
</p>
</body>
</html>
