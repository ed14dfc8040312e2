export { fieldsOf, FormFields, FormProblem } from './fields';
export { useForm, type WritingForm } from './useForm';
