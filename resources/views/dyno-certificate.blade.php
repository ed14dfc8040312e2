<!DOCTYPE html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <title>{{ $run->purpose === 'unit' ? 'Dyno certificate' : 'Recording' }} of {{ $build->serial }}</title>
    @include('paper-style')
    <style>
        img { width: 100%; } .faint { color: #555; } .bad { font-weight: bold; } .verdict { font-size: 13pt; }
        .hash { font-family: "DejaVu Sans Mono", monospace; font-size: 7.5pt; }
    </style>
</head>
<body>
<h1>{{ $run->purpose === 'unit' ? 'Dyno certificate' : 'Recording' }}, {{ $build->serial }}</h1>
<p class="faint">
    Core {{ $build->unit->core_tag }} · {{ $spec['variant'] ?? '' }} · {{ $spec['package']['name'] ?? '' }} ·
    run {{ $run->id }}, loop {{ $run->loop_no }}, {{ $run->queued_at->format('j F Y, H:i') }} ·
    {{ $run->purpose === 'foreign' ? 'read in by' : "cell $run->cell," }} {{ $operator }}
</p>
@if (($run->program['fluid'] ?? null) !== null && isset($run->analysis['temperature']['start_degc']))
    <p class="faint">
        Filled with {{ $run->program['fluid']['litres'] }} l of {{ $run->program['fluid']['name'] }},
        {{ round($run->analysis['temperature']['start_degc']) }} °C at the start and
        {{ round($run->analysis['temperature']['end_degc']) }} °C at the end.
    </p>
@endif
<p class="verdict">
    @if ($run->purpose === 'foreign')
        Recorded elsewhere, file {{ $run->specimen }}: measured, and no verdict on this unit.
    @elseif ($run->purpose === 'reference')
        A run of the reference unit: it tells of cell {{ $run->cell }}, and is no verdict on this unit.
    @elseif ($run->verdict === null)
        Not judged yet.
    @else
        @php $said = ['pass' => 'Passed', 'fail' => 'Failed', 'conditional' => 'Passed conditionally'] @endphp
        <strong>{{ $said[$run->verdict] }}</strong>
        by {{ $by }},
        {{ $run->verdict_at?->format('j F Y, H:i') }}{{ $run->suspect === '' ? '' : ", suspect $run->suspect" }}.
        {{ $run->verdict_reason }}
    @endif
</p>

<h2>Speeds</h2>
<img src="{{ $speeds }}" alt="Input, turbine and output speed over the run">
<p class="faint">Grey input, red turbine, green and dashed output.</p>
<img src="{{ $line }}" alt="Line pressure over the run">
<p class="faint">Line pressure.</p>

<h2>Against the limits</h2>
@if ($run->purpose === 'unit' && ($run->program['referenceOf'] ?? '') === 'family')
    <p>No good units with this hardware were on record: shift times, pressures and engagement were held against the
        limits alone.</p>
@endif
<table>
    <tr><th>Check</th><th>Where</th><th>Value</th><th>Limit</th><th>Result</th></tr>
    @foreach (collect($checks)->sortBy('pass')->all() as $c)
        <tr>
            <td>{{ $c['check'] }}</td><td>{{ $c['where'] }}</td>
            <td>{{ $c['value'] === null ? 'not measured' : round($c['value'], 3) }} {{ $c['unit'] }}</td>
            <td>
                {{ $c['against'] !== 'limits' && ($c['min'] ?? $c['max']) !== null ? $c['against'] : '' }}
                {{ $c['min'] === null ? '' : "from {$c['min']} " }}{{ $c['max'] === null ? '' : "to {$c['max']}" }}
            </td>
            <td @class(['bad' => ! $c['pass']])>{{ $c['pass'] ? 'inside' : 'outside' }}</td>
        </tr>
    @endforeach
</table>

@if ($readings !== [])
    <h2>Every reading against good units of the kind</h2>
    <table>
        <tr><th>Reading</th><th>Where</th><th>Value</th><th>Good units</th></tr>
        @foreach ($readings as $r)
            <tr>
                <td>{{ $r['check'] }}</td><td>{{ $r['where'] }}</td>
                <td @class(['bad' => ! $r['pass']])>
                    {{ $r['value'] === null ? 'not measured' : round($r['value'], 3) }} {{ $r['unit'] }}
                </td>
                <td>
                    {{ $r['min'] === null ? '' : "from {$r['min']}" }}
                    {{ $r['max'] === null ? '' : "to {$r['max']}" }}
                </td>
            </tr>
        @endforeach
    </table>
@endif

@if ($suspects !== [])
    <h2>Suspects by this run</h2>
    @foreach (array_slice($suspects, 0, 4) as $s)
        <p><strong>{{ $s['element'] }}</strong>: {{ $s['because'] }}</p>
    @endforeach
@endif

<h2>The recording</h2>
<p>{{ $run->program['rate_hz'] }} samples a second over {{ $run->program['end'] }} s. SHA-256 of the recording:</p>
<p class="hash">{{ $run->trace_sha256 }}</p>
</body>
</html>
