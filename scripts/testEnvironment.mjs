import vm from 'node:vm'
import { TestEnvironment } from 'jest-environment-node'

/**
 * Jest's environment for Node in a context of plain globals (Node 20.18 and later). In the usual one every look at
 * `Math` or `Object` is answered by the sandbox, which takes arithmetic many times as long.
 */
export default class PlainEnvironment extends TestEnvironment {
  constructor(config, context) {
    const { createContext } = vm
    vm.createContext = () => createContext(vm.constants.DONT_CONTEXTIFY)
    try {
      super(config, context)
    } finally {
      vm.createContext = createContext
    }
  }
}
