export { problems, type ProblemCode } from './problems.ts'
