DROP INDEX "webhook_messages_due";--> statement-breakpoint
CREATE INDEX "webhook_messages_due" ON "webhook_messages" USING btree ("webhook_id","next_at") WHERE state = 'waiting';