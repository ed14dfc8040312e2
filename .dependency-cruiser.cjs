/** Who may import whom in the front end; no circles anywhere. */
module.exports = {
    forbidden: [
        { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
        {
            name: 'stations-meet-at-the-card-contract',
            comment:
                'A station imports the kit, the api and card/section; never the registry, another station or a room.',
            severity: 'error',
            from: { path: '^resources/ui/stations/([^/]+)/' },
            to: { path: '^resources/ui/(stations/(?!$1/)|home/|rooms/|card/(?!section)|App|main)' },
        },
        {
            name: 'kit-and-api-know-nobody',
            severity: 'error',
            from: { path: '^resources/ui/(kit|api)/' },
            to: { path: '^resources/ui/(?!kit/|api/)' },
        },
    ],
    options: {
        tsPreCompilationDeps: true,
        tsConfig: { fileName: 'tsconfig.json' },
        doNotFollow: { path: 'node_modules' },
    },
};
