CREATE TABLE "fill_standing" (
	"list_id" uuid PRIMARY KEY NOT NULL,
	"is_on" boolean NOT NULL,
	"per_batch" bigint NOT NULL,
	"plan" jsonb NOT NULL,
	"changed_by" text NOT NULL
);
