CREATE TABLE "suppression_batches" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"suppression_list_id" uuid NOT NULL,
	"name" text NOT NULL,
	"sha256" text NOT NULL,
	"country" text,
	"reason" text NOT NULL,
	"as_hashes" boolean NOT NULL,
	"expires_at" timestamp with time zone,
	"rows" integer DEFAULT 0 NOT NULL,
	"unread" integer DEFAULT 0 NOT NULL,
	"added_by" text NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"taken_back_at" timestamp with time zone
);
--> statement-breakpoint
DROP INDEX "suppression_entries_once";--> statement-breakpoint
ALTER TABLE "suppression_entries" ADD COLUMN "batch_id" uuid;--> statement-breakpoint
ALTER TABLE "suppression_entries" ADD COLUMN "is_let_go" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "suppression_batches" ADD CONSTRAINT "suppression_batches_suppression_list_id_suppression_lists_id_fk" FOREIGN KEY ("suppression_list_id") REFERENCES "public"."suppression_lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "suppression_batches_list" ON "suppression_batches" USING btree ("suppression_list_id","added_at");--> statement-breakpoint
ALTER TABLE "suppression_entries" ADD CONSTRAINT "suppression_entries_batch_id_suppression_batches_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."suppression_batches"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "suppression_entries_batch" ON "suppression_entries" USING btree ("batch_id");--> statement-breakpoint
CREATE INDEX "suppression_entries_expiry" ON "suppression_entries" USING btree ("expires_at") WHERE expires_at is not null and not is_let_go;--> statement-breakpoint
ALTER TABLE "suppression_entries" ADD CONSTRAINT "suppression_entries_once" UNIQUE NULLS NOT DISTINCT("suppression_list_id","hash","batch_id");