import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
    { ignores: ['resources/ui/api/schema.gen.ts'] },
    ...tseslint.configs.recommended,
    {
        plugins: { 'react-hooks': hooks },
        rules: {
            ...hooks.configs.recommended.rules,
            '@typescript-eslint/no-non-null-assertion': 'error',
            'max-lines-per-function': ['error', { max: 40, skipBlankLines: true, skipComments: true }],
            complexity: ['error', 10],
        },
    },
    {
        files: ['tests/**', '**/*.test.ts', '**/*.test.tsx'],
        rules: {
            'max-lines-per-function': 'off',
            complexity: 'off',
            '@typescript-eslint/no-non-null-assertion': 'off',
        },
    },
);
