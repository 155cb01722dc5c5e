CREATE TABLE "layouts" (
	"key" text PRIMARY KEY NOT NULL,
	"mapping" jsonb NOT NULL,
	"default_country" text,
	"source_kind" text NOT NULL,
	"lawful_basis" text NOT NULL,
	"batch_name" text NOT NULL,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
DROP INDEX "joins_member_once";--> statement-breakpoint
ALTER TABLE "batch_pieces" DROP CONSTRAINT "batch_pieces_batch_id_byte_offset_pk";--> statement-breakpoint
ALTER TABLE "batch_pieces" ADD COLUMN "part" text DEFAULT 'file' NOT NULL;--> statement-breakpoint
ALTER TABLE "batch_pieces" ADD CONSTRAINT "batch_pieces_batch_id_part_byte_offset_pk" PRIMARY KEY("batch_id","part","byte_offset");--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "format" text DEFAULT 'csv' NOT NULL;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "sheet" text;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "first_row" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "headings_row" integer;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "merged" text DEFAULT 'every' NOT NULL;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "takes_hidden" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "notes" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "price" bigint;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "fingerprint" text;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "table_bytes" bigint;--> statement-breakpoint
ALTER TABLE "held_rows" ADD COLUMN "let_in_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "joins" ADD COLUMN "suspended_by" uuid;--> statement-breakpoint
CREATE INDEX "batches_fingerprint" ON "batches" USING btree ("fingerprint");--> statement-breakpoint
CREATE UNIQUE INDEX "joins_member_once" ON "joins" USING btree ("member_id") WHERE undone_at is null and suspended_by is null;--> statement-breakpoint
UPDATE "batches" SET "first_row" = 2, "headings_row" = 1 WHERE "has_headings";
