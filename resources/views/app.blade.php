<!DOCTYPE html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>Vast Yard</title>
    <link rel="icon" href="/mark.svg" type="image/svg+xml">
    <link rel="manifest" href="/build/manifest.webmanifest">
    <link rel="icon" href="/icons/mark-192.png" type="image/png" sizes="192x192">
    <meta name="theme-color" content="#17474d">
    @vite('resources/ui/main.tsx')
</head>
<body>
    <div id="yard"></div>
    <noscript>Vast Yard needs JavaScript.</noscript>
</body>
</html>
