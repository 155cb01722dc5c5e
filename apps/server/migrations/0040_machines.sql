CREATE TABLE "machine_batches" (
	"list_id" uuid NOT NULL,
	"key_id" uuid NOT NULL,
	"day" text NOT NULL,
	"batch_id" uuid NOT NULL,
	CONSTRAINT "machine_batches_list_id_key_id_day_pk" PRIMARY KEY("list_id","key_id","day")
);
--> statement-breakpoint
CREATE TABLE "machine_calls" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "machine_calls_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"key_id" uuid NOT NULL,
	"call" text NOT NULL,
	"status" integer NOT NULL,
	"milliseconds" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "machine_contacts" (
	"list_id" uuid NOT NULL,
	"key_id" uuid NOT NULL,
	"their_id" text NOT NULL,
	"contact_id" bigint NOT NULL,
	"sent" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "machine_contacts_list_id_key_id_their_id_pk" PRIMARY KEY("list_id","key_id","their_id")
);
--> statement-breakpoint
CREATE TABLE "machine_keys" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"scopes" text[] NOT NULL,
	"hash" text NOT NULL,
	"start" text NOT NULL,
	"per_minute" integer NOT NULL,
	"budget" bigint DEFAULT 0 NOT NULL,
	"expires_at" timestamp with time zone,
	"last_used_at" timestamp with time zone,
	"withdrawn_at" timestamp with time zone,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "machine_keys_hash" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "webhook_messages" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"webhook_id" uuid NOT NULL,
	"event" text NOT NULL,
	"payload" jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"next_at" timestamp with time zone DEFAULT now() NOT NULL,
	"status" integer,
	"problem" text,
	"answer" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"sent_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "webhooks" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid,
	"url" text NOT NULL,
	"events" text[] NOT NULL,
	"secret" text NOT NULL,
	"is_on" boolean DEFAULT true NOT NULL,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "machine_batches" ADD CONSTRAINT "machine_batches_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "machine_contacts" ADD CONSTRAINT "machine_contacts_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "machine_calls_key" ON "machine_calls" USING btree ("key_id","at");--> statement-breakpoint
CREATE INDEX "machine_contacts_contact" ON "machine_contacts" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "webhook_messages_due" ON "webhook_messages" USING btree ("state","next_at");--> statement-breakpoint
CREATE INDEX "webhook_messages_webhook" ON "webhook_messages" USING btree ("webhook_id","made_at");