import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

export default ts.config({ ignores: ['resources/js/api/schema.d.ts'] }, ...ts.configs.strict, {
    plugins: { 'react-hooks': hooks },
    rules: {
        'react-hooks/rules-of-hooks': 'error',
        'react-hooks/exhaustive-deps': 'error',
        '@typescript-eslint/no-explicit-any': 'error',
        'no-restricted-properties': [
            'error',
            {
                property: 'unroute',
                message: 'It leaves handlers that wait without their request: lift() of faults.ts.',
            },
        ],
    },
});
