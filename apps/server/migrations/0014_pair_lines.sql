ALTER TABLE "pair_states" ADD COLUMN "groups" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
UPDATE "pair_states" SET "bins" = (SELECT coalesce(jsonb_agg(b || '{"examples":[]}'::jsonb), '[]') FROM jsonb_array_elements("bins") b);
