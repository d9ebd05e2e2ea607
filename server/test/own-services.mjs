/** Tells the tests of a worker where its own database and stand-ins are. */
const services = JSON.parse(process.env.VENNET_TEST_SERVICES);
Object.assign(process.env, services[Number(process.env.JEST_WORKER_ID) - 1]);
