CREATE TABLE "call_limits" (
	"key" varchar(255) PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
DROP INDEX "charges_once";--> statement-breakpoint
ALTER TABLE "attempts" ADD COLUMN "reason" text;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "received" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "upload_lease" uuid;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "upload_lease_until" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "charges" ADD COLUMN "attempt_id" uuid;--> statement-breakpoint
ALTER TABLE "charges" ADD COLUMN "question" text;--> statement-breakpoint
UPDATE "charges" SET "question" = "job_id" || ':' || "subject";--> statement-breakpoint
ALTER TABLE "charges" ALTER COLUMN "question" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "idempotency_keys" ADD COLUMN "request" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "idempotency_keys" ADD COLUMN "token" uuid;--> statement-breakpoint
ALTER TABLE "idempotency_keys" ADD COLUMN "carried_out_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "started_by" text;--> statement-breakpoint
ALTER TABLE "line_checks" ADD COLUMN "order_id" text;--> statement-breakpoint
ALTER TABLE "line_checks" ADD COLUMN "ordered_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "lists" ADD COLUMN "version" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX "charges_job" ON "charges" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "idempotency_keys_at" ON "idempotency_keys" USING btree ("at");--> statement-breakpoint
CREATE INDEX "suppression_entries_added" ON "suppression_entries" USING btree ("added_at");--> statement-breakpoint
CREATE UNIQUE INDEX "charges_once" ON "charges" USING btree ("provider","question");