import { types } from '../demo/fleet';
import { gearMassGroup, ladderStepKt } from '../src/core/plan';
for (const s of types) console.log(s.code, gearMassGroup(s), ladderStepKt(s), s.masses.maxTakeoffKg.value+'kg', s.engine.powerHp.value+'hp x'+s.engine.count, s.surface, JSON.stringify(s.crosswind).slice(0,100), s.attributes.filter(a=>/nose|view/.test(a.key)).map(a=>a.value).join());
