import { ElMessageBox } from 'element-plus'

/** Loaded when something is first asked. */
export { ElMessageBox }
