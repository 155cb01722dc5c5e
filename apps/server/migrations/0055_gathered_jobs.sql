UPDATE "jobs" SET "cursor" = "cursor" || '{"isGathered": true}' WHERE "kind" IN ('check', 'fill');
