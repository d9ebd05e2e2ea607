import { ValidateIf } from "class-validator";

/**
 * What need not be sent. Nothing (null) is something that is sent: it is judged like any other value, where class-validator's
 * own `IsOptional` lets it pass. That one is for what nothing takes away.
 */
export const MayBeLeftOut = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);
