<!DOCTYPE html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <title>Build record of {{ $build->serial }}</title>
    @include('paper-style')
    <style>
        .faint { color: #555; } .bad { font-weight: bold; }
    </style>
</head>
<body>
<h1>Build record, {{ $build->serial }}</h1>
<p class="faint">
    Core {{ $build->unit->core_tag }} · {{ $spec['variant'] ?? '' }} · {{ $spec['package']['name'] }} ·
    {{ $build->customer?->name ?? 'for the shelf' }} · {{ now()->format('j F Y') }}
</p>
<p>{{ implode(' · ', array_column($spec['options'], 'name')) }}</p>

<h2>Otherwise than the order or the book</h2>
@forelse ($otherwise as $said) <p>{{ $said }}</p> @empty <p>Nothing.</p> @endforelse

<h2>Measured</h2>
<table>
    <tr><th>Place</th><th>Read</th><th>Window</th><th>Gauge</th><th>By</th></tr>
    @foreach ($readings as $m)
        <tr>
            <td>{{ $m['name'] }} <span class="faint">{{ $m['what'] }}</span></td>
            <td @class(['bad' => ! $m['inside']])>
                {{ $m['typed'] }}{{ $m['inside'] ? '' : ', outside' }}{{ $m['undone'] ? ', undone' : '' }}
                @if ($m['note'] !== '') <br>{{ $m['note'] }} @endif
            </td>
            <td>{{ $m['window'] }}</td><td>{{ $m['gauge'] }}</td><td>{{ $m['by'] }}, {{ $m['at'] }}</td>
        </tr>
    @endforeach
</table>

<h2>Parts in it</h2>
<table>
    <tr><th>Part</th><th>Pieces</th><th>Lot or serial</th><th>Place</th></tr>
    @foreach ($installed as $p)
        <tr>
            <td>{{ $p->name }} <span class="faint">{{ $p->part }}</span></td><td>{{ $p->count }}</td>
            <td>{{ $p->serial ?? $p->lot }}</td><td>{{ str_replace('order:', 'order, ', $p->place) }}</td>
        </tr>
    @endforeach
</table>

<h2>Operations</h2>
<table>
    <tr><th>Operation</th><th>Shown by</th><th>By</th></tr>
    @foreach ($operations as $o)
        <tr>
            <td>{{ $o['name'] }}</td>
            <td>{{ $o['said'] }}{{ $o['note'] === '' ? '' : " ({$o['note']})" }}</td>
            <td @class(['bad' => ! $o['done']])>{{ $o['done'] ? "{$o['by']}, {$o['at']}" : 'not done' }}</td>
        </tr>
    @endforeach
</table>

<h2>Signed</h2>
@forelse ($signOffs as $s)
    <p>{{ $s['what'] }}: {{ $s['by'] }}, {{ $s['at'] }}</p>
@empty
    <p>Not signed yet.</p>
@endforelse
<p>{{ $dyno === null ? 'Not dyno-tested.' : "Dyno: {$dyno['verdict']}, {$dyno['by']}, {$dyno['on']}." }}</p>
<p class="faint">The maker's procedure, local rules and licensed practice come first.</p>
</body>
</html>
