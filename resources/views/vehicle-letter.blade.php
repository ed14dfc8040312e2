<!DOCTYPE html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <title>About the vehicle, {{ $unit->core_tag }}</title>
    <style>
        body { font-family: "DejaVu Sans", sans-serif; font-size: 11pt; line-height: 1.5; color: #111; }
        body { max-width: 165mm; margin: 18mm auto; }
        h1 { font-size: 16pt; margin: 0 0 6mm; } h2 { font-size: 12pt; margin: 6mm 0 1mm; }
        .faint { color: #555; font-size: 10pt; }
    </style>
</head>
<body>
<p class="faint">{{ now()->format('j F Y') }}</p>
<p>{{ $unit->currentBuild?->customer?->name ?? 'To the owner' }}</p>
<h1>What we found that lies in the vehicle</h1>
<p>
    We took unit {{ $unit->currentBuild?->serial ?? $unit->core_tag }}
    {{ $unit->vehicle === '' ? '' : "($unit->vehicle)" }} apart.
    What follows comes from outside the unit. A rebuilt unit in a vehicle that is as it was fails again, whoever
    built it.
</p>
@foreach ($causes as $cause)
    <h2>{{ $cause->name }}</h2>
    <p>{{ $cause->letter }} {{ $cause->note }}</p>
    <p><strong>Before the warranty starts:</strong> {{ $cause->condition }}
        @if ($cause->settled_at !== null)
            Done: {{ $cause->settled_by_name }}, {{ $cause->settled_at->format('j F Y') }}, {{ $cause->settled_how }}.
        @endif
    </p>
@endforeach
<p>
    Please send us in writing who did it, when, and how. The warranty starts with that note and the commissioning sheet.
    The vehicle maker's procedure, local rules and licensed practice come first.
</p>
</body>
</html>
